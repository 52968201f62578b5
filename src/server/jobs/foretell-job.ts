/** What would have been foretold of some batches and bars, beside what came, away from requests. */
import { foretoldCure, foretoldHeat, foretoldPace } from '../../core/sure/foretell';
import type { Foretold } from '../../core/sure/held';

export interface ForetellTask {
  cures: readonly Parameters<typeof foretoldCure>[0][];
  heats: readonly Parameters<typeof foretoldHeat>[0][];
  sales: readonly Parameters<typeof foretoldPace>[0][];
  today: string;
}

/** Everything that was foretold, in no order that means anything. */
export function foretell({ cures, heats, sales, today }: ForetellTask): Foretold[] {
  return [
    ...cures.flatMap(foretoldCure),
    ...heats.flatMap(foretoldHeat),
    ...sales.flatMap((bar) => foretoldPace(bar, today)),
  ];
}
