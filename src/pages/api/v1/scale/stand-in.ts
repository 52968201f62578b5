import { STAND_IN_DOES, type StandInDo } from '../../../../server/devices/scale-stand-in';
import { standInScale } from '../../../../server/devices/scale';
import { StandInDoor } from '../../../../server/doors/devices';
import { answerJson, endpoint, fault, onlyMethods, readShaped } from '../../../../server/http';

export const POST = endpoint(async ({ request }) => {
  const what = await readShaped<{ do: StandInDo | 'reset'; g?: number; seconds?: number }>(
    StandInDoor,
    request,
  );
  const scale = standInScale();
  if (!scale)
    throw fault(422, 'no-stand-in', 'A real scale is plugged in here; the practice scale rests.', 'do');
  if (what.do === 'reset') scale.reset();
  else scale.do(what.do, what.g, what.seconds);
  return answerJson({
    trueG: scale.trueG,
    readabilityG: scale.readabilityG,
    does: [...STAND_IN_DOES, 'reset'],
  });
});

export const ALL = onlyMethods('POST');
