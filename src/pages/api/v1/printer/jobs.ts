import { labelPrinter } from '../../../../server/devices/printer';
import { PrintDoor } from '../../../../server/doors/devices';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { reprint } from '../../../../server/services/wrap/labels';

export const GET = endpoint(() => answerJson({ jobs: labelPrinter().jobs() }));

export const POST = endpoint(async ({ request }) => {
  const { label, copies } = await readShaped<{ label: string; copies: number }>(PrintDoor, request);
  const house = await openHouse();
  // Only what was issued is printed, as it was issued.
  await reprint(house, label, { as: 'pdf', copies: null });
  return answerJson({ job: labelPrinter().print(label, copies, house.now) }, 201);
});

export const ALL = onlyMethods('GET', 'POST');
