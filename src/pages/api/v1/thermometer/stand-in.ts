import { benchThermometer } from '../../../../server/devices/thermometer';
import { DipDoor } from '../../../../server/doors/devices';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';

export const POST = endpoint(async ({ request }) => {
  const { c } = await readShaped<{ c: number }>(DipDoor, request);
  benchThermometer().dip(c);
  return answerJson(benchThermometer().read());
});

export const ALL = onlyMethods('POST');
