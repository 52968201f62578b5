import { join } from 'node:path';
import { LIST_NAMES, type ListName, type ListsJob } from '../../../server/archive/lists';
import { dataFolder } from '../../../server/config';
import { DATABASE_FILE } from '../../../server/database';
import { openHouse } from '../../../server/house';
import { answerFile, endpoint, fault, onlyMethods } from '../../../server/http';
import { onThread } from '../../../server/jobs/threads';
import { told } from '../../../server/jobs/told';

const FORMS: Record<ListsJob['as'], { mime: string; ending: string }> = {
  csv: { mime: 'text/csv; charset=utf-8', ending: 'csv' },
  'csv-comma': { mime: 'text/csv; charset=utf-8', ending: 'csv' },
  json: { mime: 'application/json', ending: 'json' },
  xlsx: { mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', ending: 'xlsx' },
};

/** Lists of what is on file: one by its name, or all of them in a workbook or as JSON. */
export const GET = endpoint(async ({ url }) => {
  const as = (url.searchParams.get('as') ?? 'xlsx') as ListsJob['as'];
  const name = url.searchParams.get('list') as ListName | null;
  if (!Object.hasOwn(FORMS, as))
    throw fault(422, 'not-allowed', `Lists come as ${Object.keys(FORMS).join(', ')}.`, 'as');
  if (name !== null && !LIST_NAMES.includes(name))
    throw fault(422, 'not-allowed', `There are these lists: ${LIST_NAMES.join(', ')}.`, 'list');
  if (name === null && as.startsWith('csv'))
    throw fault(422, 'missing', `A CSV holds one list. Name it: ${LIST_NAMES.join(', ')}.`, 'list');
  const { today, zone } = await openHouse();
  const job = { file: join(dataFolder(), DATABASE_FILE), zone, day: today, name, as };
  const body = await told(onThread('makeLists', job), 'as');
  const { mime, ending } = FORMS[as];
  return answerFile(body, mime, `proportia-${name ?? 'lists'}-${today}.${ending}`);
});

export const ALL = onlyMethods('GET');
