import { database } from '../../../../../server/database';
import { FilePapersDoor } from '../../../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { filePapers, type AcceptedPaper } from '../../../../../server/services/materials';

export const POST = endpoint(async ({ params, request }) => {
  const { papers, inbox } = await readShaped<{ papers: AcceptedPaper[]; inbox?: string | null }>(
    FilePapersDoor,
    request,
  );
  return answerJson(await filePapers(await database(), params.id ?? '', papers, inbox ?? null), 201);
});

export const ALL = onlyMethods('POST');
