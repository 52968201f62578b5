/** What waits for a hand in places that are not open just now, for the header of every page. */
import { attentionOf, type Attention } from '../../../core/hands/hand';
import type { House } from '../../house';
import { handsOfPlaces } from './hands';

/** What cannot wait, by place. */
export const attentionNow = async (house: House): Promise<Attention> =>
  attentionOf(await handsOfPlaces(house));
