/** A snapshot as threads take it: written once into memory that all of them see. */
import type { OwnPhrase } from '../../core/claims/types';
import { shareSetting, type SharedSetting } from '../jobs/reckon-jobs';
import type { StoreSnapshot } from './snapshot';

const shared = new WeakMap<StoreSnapshot, Map<string, SharedSetting>>();

/** The shared setting of a snapshot, with the maker's own phrases in a revision. */
export function sharedSetting(
  snapshot: StoreSnapshot,
  phrases: { value: readonly OwnPhrase[]; revision: number } = { value: [], revision: 0 },
): SharedSetting {
  const known = shared.get(snapshot) ?? new Map<string, SharedSetting>();
  shared.set(snapshot, known);
  const id = `${snapshot.id} ${phrases.revision}`;
  const made =
    known.get(id) ??
    shareSetting(id, {
      materials: [...snapshot.own.values()],
      limits: snapshot.limits,
      declarables: snapshot.declarables,
      demands: snapshot.demands,
      phrases: phrases.value,
    });
  known.set(id, made);
  return made;
}
