/** Fewer names over a whole range, away from requests. */
import { fewestNames, type FewSwaps, type RangeAsked } from '../../core/scent/range-names';
import { clockMs } from '../clock';
import { storedOf, type SharedSetting } from './reckon-jobs';

export interface RangeNamesTask extends Omit<RangeAsked, 'stored' | 'goOn'> {
  setting: SharedSetting;
  /** The best that was found by then is answered, milliseconds. */
  withinMs: number;
}

/** The best sets of swaps that are found in time. */
export function rangeNames({ setting, withinMs, ...asked }: RangeNamesTask): FewSwaps {
  const end = clockMs() + withinMs;
  return fewestNames({ ...asked, stored: storedOf(setting), goOn: () => clockMs() < end });
}
