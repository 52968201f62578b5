import { useMemo } from 'react';
import { MARKETS } from '../../core/formula/types';
import { headroomMap, MAP_STEP, type MapColumn, type MapRow } from '../../core/range/arrange';
import type { RangeRow } from '../../core/records/range';
import { along } from '../../ui/Straightedge';
import rangeStyles from './range.module.css';

const WIDTH = 560;
/** Room at the right, so that the last word is whole. */
const EDGE = 4;
const ROW = 26;
const LABEL = 34;
const END = 1.55;

const x = (ratio: number) => LABEL + ((WIDTH - LABEL) * along(ratio)) / along(END);
const share = (value: number) => `${Math.round(100 * value)} %`;

function columnWords({ from, bars }: MapColumn): string {
  const count = bars.length === 1 ? 'one bar' : `${bars.length} bars`;
  if (from >= 1.5) return `${count} at ${share(from)} of the limit or more`;
  return `${count} at ${share(from)} to ${share(from + MAP_STEP)} of the limit`;
}

/** One market: a stroke for every twentieth of a limit, the higher the more bars there are (by the square root). */
function Strip({
  row,
  top,
  most,
  onPick,
}: {
  row: MapRow;
  top: number;
  most: number;
  onPick: (bars: string[]) => void;
}) {
  return (
    <>
      <text x={0} y={top + ROW - 8} className={rangeStyles.mapLabel}>
        {row.market}
      </text>
      <line x1={LABEL} x2={WIDTH} y1={top + ROW - 2} y2={top + ROW - 2} className={rangeStyles.mapBase} />
      {row.columns
        .filter(({ bars }) => bars.length > 0)
        .map((column) => {
          const height = Math.max(4, (ROW - 6) * Math.min(1, Math.sqrt(column.bars.length / most)));
          const left = x(column.from);
          return (
            <rect
              key={column.from}
              x={left}
              y={top + ROW - 2 - height}
              width={Math.max(2, x(Math.min(END, column.from + MAP_STEP)) - left - 1)}
              height={height}
              className={column.from >= 1 ? rangeStyles.mapPast : rangeStyles.mapBar}
              onClick={() => onPick(column.bars)}
            >
              <title>{`${row.market}: ${columnWords(column)}`}</title>
            </rect>
          );
        })}
    </>
  );
}

/** What the picture says, for whoever does not see it. */
function wordsOf(rows: readonly MapRow[]): string {
  return rows
    .map(({ market, columns, without }) => {
      const count = (test: (from: number) => boolean) =>
        columns.filter(({ from }) => test(from)).reduce((sum, { bars }) => sum + bars.length, 0);
      const parts = [
        `${count((from) => from < 0.9)} with room`,
        `${count((from) => from >= 0.9 && from < 1)} close to a limit`,
        `${count((from) => from >= 1)} past one`,
        `${without.length} with nothing to draw`,
      ];
      return `${market}: ${parts.join(', ')}.`;
    })
    .join(' ');
}

/** All bars in all markets against the one rule: how many stand where. A stroke picks its bars. */
export function HeadroomMap({
  rows,
  onPick,
}: {
  rows: readonly RangeRow[];
  onPick: (bars: ReadonlySet<string>) => void;
}) {
  const map = useMemo(() => headroomMap(rows, MARKETS), [rows]);
  if (map.length === 0) return null;
  // The last column holds whatever is further past: a crowd there does not press the others flat.
  const most = Math.max(
    ...map.flatMap(({ columns }) => columns.slice(0, -1).map(({ bars }) => bars.length)),
    1,
  );
  const height = map.length * ROW;
  return (
    <figure className={rangeStyles.headroomMap}>
      <svg
        viewBox={`0 0 ${WIDTH} ${height + 14}`}
        role="img"
        aria-label={`Headroom over the range. ${wordsOf(map)}`}
      >
        {map.map((row, at) => (
          <Strip
            key={row.market}
            row={row}
            top={at * ROW}
            most={most}
            onPick={(bars) => onPick(new Set(bars))}
          />
        ))}
        <line x1={x(1)} x2={x(1)} y1={0} y2={height} className={rangeStyles.mapRule} />
        <text x={x(1)} y={height + 12} textAnchor="middle" className={rangeStyles.mapLabel}>
          the limit
        </text>
        <text x={LABEL} y={height + 12} className={rangeStyles.mapLabel}>
          nothing used
        </text>
        <text x={WIDTH - EDGE} y={height + 12} textAnchor="end" className={rangeStyles.mapLabel}>
          past it
        </text>
      </svg>
    </figure>
  );
}
