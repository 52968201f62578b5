/** The way back for a batch in the pot, found on a thread. */
import loadHighs from 'highs';
import { rescue, type Rescue, type RescueAsk } from '../../core/batch/rescue';
import { solveWith } from '../../core/numerics/highs';
import { storedOf, type SharedSetting } from './reckon-jobs';

const loading = loadHighs();

/** What would bring a batch back within its bounds; null where it does not reckon. */
export async function findRescue({
  setting,
  ...ask
}: Omit<RescueAsk, 'stored'> & { setting: SharedSetting }): Promise<Rescue | null> {
  return rescue({ ...ask, stored: storedOf(setting) }, solveWith(await loading));
}
