import { answerJson, endpoint, onlyMethods } from '../../../../../../server/http';
import { dropArchive, previewOf } from '../../../../../../server/services/house/archive';

export const GET = endpoint(async ({ params }) => answerJson(await previewOf(params.id ?? '')));

/** Lets it go. */
export const DELETE = endpoint(({ params }) => {
  dropArchive(params.id ?? '');
  return answerJson({ dropped: params.id });
});

export const ALL = onlyMethods('GET', 'DELETE');
