import type { Lesson } from '../../../../../core/paperwork/lessons';
import type { AcceptedPaper } from '../../../../../core/records/papers';
import { FilePapersDoor } from '../../../../../server/doors/cupboard';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { filePapers } from '../../../../../server/store/materials';

interface Filing {
  papers: AcceptedPaper[];
  inbox: string | null;
  lessons?: Lesson[];
}

export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const { papers, inbox, lessons } = await readShaped<Filing>(FilePapersDoor, request);
  const house = await openHouse();
  return answerJson(await filePapers(house, params.id ?? '', papers, inbox, lessons ?? [], key), 201);
});

export const ALL = onlyMethods('POST');
