import { labelPrinter } from '../../../../server/devices/printer';
import { PrintDoor } from '../../../../server/doors/devices';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { refuseWaiting } from '../../../../server/services/wrap/labels';

export const GET = endpoint(() => answerJson({ jobs: labelPrinter().jobs() }));

export const POST = endpoint(async ({ request }) => {
  const { label, copies } = await readShaped<{ label: string; copies: number }>(PrintDoor, request);
  const house = await openHouse();
  // Only what was issued is printed.
  await refuseWaiting(house, label);
  return answerJson({ job: labelPrinter().print(label, copies, house.now) }, 201);
});

export const ALL = onlyMethods('GET', 'POST');
