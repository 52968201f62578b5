/** A change that is looked at before it is made: what it would touch stands on a page of its own. */
import type { Change } from '../core/change/types';
import { address, send, type Fault } from './api';

/** Asks what a change touches and goes where that is shown; what stands in the way, none where nothing does. */
export async function lookAtChange(change: Change): Promise<Fault[]> {
  const answer = await send<{ id: string }>('POST', address('changes'), { change });
  if (!answer.ok) return answer.faults;
  location.assign(`/watch/${answer.body.id}`);
  return [];
}
