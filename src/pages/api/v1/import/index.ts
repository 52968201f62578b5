import type { SheetLesson } from '../../../../core/sheets/sheet-lessons';
import { ImportDoor } from '../../../../server/doors/import';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { importBars, type BarOfSheet } from '../../../../server/services/house/import';

interface Asked {
  preview: boolean;
  bars: BarOfSheet[];
  /** What the sheet teaches for those laid out alike. */
  lesson?: SheetLesson | null;
}

/** Looks at bars of a spreadsheet, or takes them: all or none. 422 with every fault where some cannot be taken. */
export const POST = endpoint(async ({ request }) => {
  const { preview, bars, lesson = null } = await readShaped<Asked>(ImportDoor, request);
  const result = await importBars(await openHouse(), bars, { preview, lesson });
  const isRefused = !preview && bars.length > 0 && result.taken === 0;
  if (!isRefused) return answerJson(result, result.taken > 0 ? 201 : 200);
  const errors = result.bars.flatMap(({ name, fault }, at) =>
    fault === null ? [] : [{ path: `bars.${at}`, code: 'bar', message: `${name}: ${fault}` }],
  );
  return answerJson({ errors }, 422);
});

export const ALL = onlyMethods('POST');
