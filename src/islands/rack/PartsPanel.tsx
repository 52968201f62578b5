import type { CureData } from '../../core/records/rack';
import type { Writing } from '../pour/writing';

/** Placeholder until parts are made. */
export function PartsPanel(_: { data: CureData; writing: Writing }) {
  return null;
}
