import type { AcceptedPaper } from '../../../../../core/records/papers';
import { FilePapersDoor } from '../../../../../server/doors/cupboard';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { filePapers } from '../../../../../server/services/materials';

export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const { papers, inbox } = await readShaped<{ papers: AcceptedPaper[]; inbox: string | null }>(
    FilePapersDoor,
    request,
  );
  return answerJson(await filePapers(await openHouse(), params.id ?? '', papers, inbox, key), 201);
});

export const ALL = onlyMethods('POST');
