import { useMemo, useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { ImportResult } from '../../core/records/import';
import type { PercentOf, SheetUnit } from '../../core/sheets/amounts';
import { SHEET_KINDS, type Layout, type CellAt } from '../../core/sheets/cells';
import { guessLayout, unreadHeads } from '../../core/sheets/layout';
import { lessonFor, lessonOf, saidOf, type Said, type SheetLesson } from '../../core/sheets/sheet-lessons';
import { writeAmount } from '../../core/quantities/amount';
import { address } from '../../ui/api';
import { Names, useMatches } from '../../ui/MaterialNames';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { dayInWords, grams, many, VERDICT_WORDS } from '../../ui/words';
import { LoggedBatches, useLogged } from './LoggedBatches';
import { Columns, Outcome, TakeIn, Unread, useLeft, useSending, type Sheet } from './import-parts';
import { makeBars, type MadeBar } from './sheet';
import { COLUMN_WORDS, isAcross, KIND_WORDS, ROLE_WORDS } from './sheet-words';
import { SheetPicture } from './SheetPicture';
import { SheetPointing } from './SheetPointing';

const UNIT_CHOICES: readonly (readonly [SheetUnit | '', string])[] = [
  ['', 'each cell says it'],
  ['g', 'grams'],
  ['oz', 'ounces'],
  ['kg', 'kilograms'],
  ['lb', 'pounds'],
  ['%', 'percent'],
];

function LayoutForm({
  sheet,
  layout,
  onChange,
}: {
  sheet: Sheet;
  layout: Layout;
  onChange: (layout: Layout) => void;
}) {
  const heads = sheet.rows[Math.max(0, layout.head)] ?? [];
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Select
        label="Laid out as"
        value={layout.kind}
        options={SHEET_KINDS.map((kind) => [kind, KIND_WORDS[kind]] as const)}
        onChange={(kind) => onChange({ ...layout, kind })}
      />
      {!isAcross(layout) && (
        <Columns
          heads={heads}
          words={COLUMN_WORDS}
          columns={{
            ...layout.columns,
            stage: layout.columns.stage ?? null,
            portion: layout.columns.portion ?? null,
            weighed: layout.columns.weighed ?? null,
            larger: layout.columns.larger ?? null,
          }}
          onChange={(columns) => onChange({ ...layout, columns })}
        />
      )}
      <Select
        label="Bare numbers are in"
        value={layout.unit ?? ''}
        options={UNIT_CHOICES}
        onChange={(unit) => onChange({ ...layout, unit: unit === '' ? null : unit })}
      />
    </div>
  );
}

const USUAL: Said = { percentOf: 'fats', batchG: 1000, superfatPct: 5, chosen: {}, roles: {} };

function Percents({ said, onSaid }: { said: Said; onSaid: (said: Said) => void }) {
  const [batch, setBatch] = useState(String(said.batchG));
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Select<PercentOf>
        label="Percents are of, where they do not add up"
        value={said.percentOf}
        options={[
          ['fats', 'the fats'],
          ['whole', 'everything'],
        ]}
        onChange={(percentOf) => onSaid({ ...said, percentOf })}
      />
      <TextField
        label="Grams of a batch in percent"
        value={batch}
        isNumber
        onChange={(text) => {
          setBatch(text);
          const batchG = readNumberOrNull(text);
          if (batchG !== null && batchG > 0 && batchG <= 1e6) onSaid({ ...said, batchG });
        }}
      />
    </div>
  );
}

function lookedWords(result: ImportResult | null, wanted: string) {
  const looked = result?.bars.find(({ name }) => name === wanted);
  if (!looked) return null;
  const { fault, verdict } = looked;
  return { words: fault ?? (verdict ? VERDICT_WORDS[verdict] : ''), isFault: fault !== null };
}

/** A bar as it would stand, each row beside what the cell says. */
function Account({ bar, titleOf }: { bar: MadeBar; titleOf: (name: string) => string }) {
  return (
    <details className="pl-6">
      <summary className="cursor-pointer text-ultra">line by line</summary>
      <table className="plain-table table-auto font-narrow" aria-label={`${bar.name}, line by line`}>
        <thead>
          <tr>
            {['Row', 'The sheet says', 'Taken as', 'Amount', 'Grams'].map((head) => (
              <th key={head} scope="col" className="pr-4 text-left">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {bar.account.map(({ row, name, said, role, line, massG }, at) => (
            <tr key={at}>
              <td className="pr-4 text-soft">{row}</td>
              <td className="pr-4">{said.includes(name) ? said : `${name}: ${said}`}</td>
              <td className="pr-4">{role === 'material' ? titleOf(name) : ROLE_WORDS[role]}</td>
              <td className="pr-4">{line && writeAmount(line.amount)}</td>
              <td>{massG === null ? '' : grams(massG)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

/** That a sheet laid out alike was taken in before, and is read as that one was. */
function AsBefore({ lesson, onAfresh }: { lesson: SheetLesson; onAfresh: () => void }) {
  return (
    <p>
      Read as {lesson.learntFrom} of {dayInWords(lesson.learntOn)}, which had the same heads.{' '}
      <button type="button" className="cursor-pointer text-ultra underline" onClick={onAfresh}>
        Guess it afresh
      </button>
    </p>
  );
}

/** How a sheet is read: as one laid out alike was, or as it is guessed, until the maker says otherwise. */
function useReading(sheet: Sheet, lessons: readonly SheetLesson[]) {
  const [lesson, setLesson] = useState(() => lessonFor(sheet.rows, lessons));
  const [layout, setLayout] = useState(() => lesson?.layout ?? guessLayout(sheet.rows));
  const [said, setSaid] = useState<Said>(lesson ? saidOf(lesson) : USUAL);
  const afresh = () => {
    setLesson(null);
    setLayout(guessLayout(sheet.rows));
    setSaid(USUAL);
  };
  return { lesson, layout, setLayout, said, setSaid, afresh };
}

/** The bars of a sheet as far as they can be made, once its names are looked up. */
function useMade(sheet: Sheet, { layout, said }: ReturnType<typeof useReading>, out: ReadonlySet<number>) {
  const rows = useMemo(() => sheet.rows.map((row, at) => (out.has(at) ? [] : row)), [sheet, out]);
  const names = useMemo(
    () => makeBars(rows, layout, sheet.name, new Map(), said).names,
    [sheet, rows, layout, said],
  );
  const { matches, isMatching } = useMatches(names);
  const made = useMemo(
    () => makeBars(rows, layout, sheet.name, matches, said),
    [sheet, rows, layout, matches, said],
  );
  return { names, matches, isMatching, made };
}

interface Props {
  sheet: Sheet;
  lessons: readonly SheetLesson[];
  today: string;
  /** What follows once its bars are taken. */
  onTaken: () => void;
}

/** Bars as they stand in a maker's sheet. */
export function ImportBars({ sheet, lessons, today, onTaken }: Props) {
  const reading = useReading(sheet, lessons);
  const { lesson, layout, setLayout, said, setSaid, afresh } = reading;
  const { left: out, leave: setOut } = useLeft<number>();
  const [at, setAt] = useState<CellAt | null>(null);
  const { names, matches, isMatching, made } = useMade(sheet, reading, out);
  const { faults, result, busy, go } = useSending<ImportResult>(address('import'), onTaken);
  const { left, leave } = useLeft<string>();
  const logged = useLogged(today);
  const chosen = made.bars.filter(({ name }) => !left.has(name));
  const titleOf = (name: string) => said.chosen[name]?.title ?? matches.get(name)?.title ?? name;
  return (
    <>
      {lesson && <AsBefore lesson={lesson} onAfresh={afresh} />}
      <SheetPicture rows={sheet.rows} cells={made.cells} out={out} onOut={setOut} at={at} onPoint={setAt} />
      {at && (
        <SheetPointing
          {...{ rows: sheet.rows, at, layout, said }}
          role={out.has(at.row) ? undefined : made.cells.get(`${at.row} ${at.column}`)}
          onLayout={setLayout}
          onSaid={setSaid}
        />
      )}
      <LayoutForm sheet={sheet} layout={layout} onChange={setLayout} />
      {!isAcross(layout) && <Unread heads={unreadHeads(sheet.rows, layout)} />}
      <Percents said={said} onSaid={setSaid} />
      <Names
        names={names}
        matches={matches}
        taken={(name) => {
          const title = said.chosen[name]?.title ?? matches.get(name)?.title;
          return title ? `taken for ${title}` : null;
        }}
        onFound={(name, { id, name: title, kind }) =>
          setSaid({ ...said, chosen: { ...said.chosen, [name]: { id, title, kind } } })
        }
      />
      <Outcome
        what="bar"
        all={made.bars.map((bar) => ({
          ...{
            key: bar.name,
            name: bar.name,
            words: many(bar.formula.lines.length, 'line'),
            notes: bar.notes,
          },
          looked: lookedWords(result, bar.name),
          detail: (
            <>
              <Account bar={bar} titleOf={titleOf} />
              <LoggedBatches bar={bar} logged={logged} today={today} />
            </>
          ),
        }))}
        faults={made.faults}
        left={left}
        isMatching={isMatching}
        onLeave={leave}
      />
      <TakeIn
        look="Hold them against the limits first"
        what="bar"
        count={chosen.length}
        busy={busy}
        isHeld={isMatching || made.faults.length > 0 || logged.isOpen(chosen)}
        and={logged.count(chosen) > 0 ? ` with ${many(logged.count(chosen), 'batch', 'batches')}` : ''}
        faults={faults}
        onGo={(preview) =>
          void go(preview, {
            bars: chosen.map((bar) => ({
              ...{ name: bar.name, note: bar.note, formula: bar.formula },
              batches: logged.takenOf(bar),
            })),
            lesson: preview ? null : lessonOf(sheet.rows, layout, said, { name: sheet.file, day: today }),
          })
        }
      />
    </>
  );
}
