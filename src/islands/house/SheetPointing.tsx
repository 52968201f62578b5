/** What a cell of a sheet is, said by pointing at it: a bar's name, the heads, what a column holds, what a row says. */
import type { CellAt, Layout, SheetColumns } from '../../core/sheets/cells';
import type { CellRole } from '../../core/sheets/account';
import { withHeads } from '../../core/sheets/layout';
import type { PointedRole, Said } from '../../core/sheets/sheet-lessons';
import { Select } from '../../ui/Select';
import { COLUMN_WORDS, isAcross, POINTED_WORDS } from './sheet-words';

interface Props {
  rows: readonly (readonly string[])[];
  at: CellAt;
  role: CellRole | undefined;
  layout: Layout;
  onLayout: (layout: Layout) => void;
  said: Said;
  onSaid: (said: Said) => void;
}

const without = <T,>(all: readonly T[] = [], is: (one: T) => boolean): T[] => all.filter((one) => !is(one));

/** A bar's name at a cell: named once, other cells of its row name none. */
function naming(layout: Layout, { row, column }: CellAt): Layout {
  const named = [...without(layout.named, (one) => one.row === row), { row, column }];
  const unnamed = without(layout.unnamed, (one) => one === row);
  return { ...layout, kind: layout.kind === 'single' ? 'blocks' : layout.kind, named, unnamed };
}

const unnaming = (layout: Layout, { row }: CellAt): Layout => ({
  ...layout,
  named: without(layout.named, (one) => one.row === row),
  unnamed: [...without(layout.unnamed, (one) => one === row), row],
});

type ColumnKey = keyof SheetColumns;

/** A layout in which a column holds something, or nothing that is read. */
function holding(layout: Layout, column: number, key: ColumnKey | ''): Layout {
  const freed = Object.fromEntries(
    Object.entries(layout.columns).map(([one, at]) => [one, at === column ? null : (at as number | null)]),
  ) as unknown as SheetColumns;
  const columns = key === '' ? freed : { ...freed, [key]: column };
  const kind = columns.bar !== null ? 'list' : layout.kind === 'list' ? 'single' : layout.kind;
  return { ...layout, kind, columns };
}

const heldBy = ({ columns }: Layout, column: number) =>
  (Object.keys(COLUMN_WORDS) as ColumnKey[]).find((key) => columns[key] === column) ?? '';

function Press({ words, onPress }: { words: string; onPress: () => void }) {
  return (
    <button type="button" className="action" onClick={onPress}>
      {words}
    </button>
  );
}

/** What the cell that was pointed at is, as it is read now and as it may be. */
export function SheetPointing({ rows, at, role, layout, onLayout, said, onSaid }: Props) {
  const text = (rows[at.row]?.[at.column] ?? '').trim();
  const isDown = !isAcross(layout);
  const names = role === 'name' && text !== '';
  return (
    <section aria-label="The cell that was pointed at" className="flex flex-wrap items-end gap-x-4 gap-y-2">
      <p className="w-full">
        Row {at.row + 1}:{' '}
        <strong className="font-medium">{text === '' ? 'an empty cell' : `“${text}”`}</strong>
      </p>
      {isDown && text !== '' && role !== 'bar' && layout.kind !== 'list' && (
        <Press words="It is a bar’s name" onPress={() => onLayout(naming(layout, at))} />
      )}
      {isDown && role === 'bar' && layout.kind !== 'list' && (
        <Press words="It names no bar" onPress={() => onLayout(unnaming(layout, at))} />
      )}
      {isDown && text !== '' && role !== 'head' && (
        <Press words="Its row holds the heads" onPress={() => onLayout(withHeads(rows, layout, at.row))} />
      )}
      {isDown && (
        <Select<ColumnKey | ''>
          label="Its column holds"
          value={heldBy(layout, at.column)}
          options={[['', 'nothing that is read'], ...(Object.entries(COLUMN_WORDS) as [ColumnKey, string][])]}
          onChange={(key) => onLayout(holding(layout, at.column, key))}
        />
      )}
      {names && (
        <Select<PointedRole | ''>
          label={`“${text}” is`}
          value={said.roles?.[text] ?? ''}
          options={[
            ['', 'what its name says'],
            ...(Object.entries(POINTED_WORDS) as [PointedRole, string][]),
          ]}
          onChange={(pointed) => {
            const { [text]: _, ...others } = said.roles ?? {};
            onSaid({ ...said, roles: pointed === '' ? others : { ...others, [text]: pointed } });
          }}
        />
      )}
    </section>
  );
}
