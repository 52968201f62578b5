import { answerStream, endpoint, onlyMethods } from '../../../../../server/http';
import { backupStream } from '../../../../../server/services/house/backups';

/** The file of a backup. */
export const GET = endpoint(({ params }) => {
  const id = params.id ?? '';
  return answerStream(backupStream(id), 'application/vnd.sqlite3', `proportia-${id}.sqlite`);
});

export const ALL = onlyMethods('GET');
