/** The same assessment as a spreadsheet for a general engine: masses, loads, subjects, limits in every market. */
import { HyperFormula, type RawCellContent } from 'hyperformula';
import type { Reckoning } from '../../src/core/assess';
import { BASE } from '../../src/core/loads/plan';
import { partInSection } from '../../src/core/loads/sections';

const FIRST_LINE_ROW = 12;

function column(index: number): string {
  let name = '';
  for (let n = index + 1; n > 0; n = Math.floor((n - 1) / 26))
    name = String.fromCharCode(65 + ((n - 1) % 26)) + name;
  return name;
}

/** Columns of a line's row: coefficient, of-fats flag, is-fat, demand, acid, water, low, high, mass, then loads. */
function lineRow({ plan }: Reckoning, i: number, row: number): RawCellContent[] {
  const mass =
    plan.base[i] === BASE.fats
      ? `=A${row}*$B$2`
      : plan.base[i] === BASE.liquid
        ? `=A${row}*$B$5`
        : `=A${row}*$B$1`;
  return [
    plan.coefficient[i]!,
    plan.isFat[i]!,
    plan.cookDemand[i]!,
    plan.acidUptake[i]!,
    plan.waterShare[i]!,
    1 + plan.doubtLow[i]!,
    1 + plan.doubtHigh[i]!,
    mass,
    `=100*H${row}/$B$2`,
    `=100*H${row}/$B$6`,
    `=100*H${row}/$B$8`,
    `=H${row}*F${row}`,
    `=H${row}*G${row}`,
    `=M${row}-H${row}`,
    `=N${row}*B${row}`,
  ];
}

const SECTION_COLUMN = 15;

function headRows({ plan }: Reckoning, last: number): RawCellContent[][] {
  const range = (name: string) => `${name}${FIRST_LINE_ROW}:${name}${last}`;
  const { formula } = plan;
  const lastFat = FIRST_LINE_ROW + plan.isFat.lastIndexOf(1);
  const fats = (name: string) => `${name}${FIRST_LINE_ROW}:${name}${lastFat}`;
  return [
    ['scale of absolute masses', 1],
    ['fats', `=SUMPRODUCT(${fats('H')},${fats('B')})`],
    [
      'pure alkali',
      `=(1-${plan.superfat})*SUMPRODUCT(${range('H')},${range('C')})+SUMPRODUCT(${range('H')},${range('D')})`,
    ],
    ['weighed alkali', `=B3/${plan.purity}`],
    ['liquid', `=${(formula.liquid?.value ?? 0) / 100}*B2`],
    ['pour', `=SUM(${range('H')})+B4`],
    [
      'water',
      `=SUMPRODUCT(${range('H')},${range('E')})+SUMPRODUCT(${range('H')},${range('D')})*18.015/39.997`,
    ],
    ['cured', `=MIN(B6,(B6-B7)/${1 - plan.residualShare})`],
    [],
    [],
    [],
  ];
}

/** Puts shares of every subject beside the lines: for each subject a column of typical, low and high. */
function subjectCells({ subjects }: Reckoning): Map<string, number> {
  const cells = new Map<string, number>();
  for (let e = 0; e < subjects.line.length; e++) {
    const base = SECTION_COLUMN + subjects.subject[e]! * 3;
    const row = subjects.line[e]!;
    cells.set(`${row}:${base}`, subjects.typical[e]!);
    cells.set(`${row}:${base + 1}`, subjects.low[e]!);
    cells.set(`${row}:${base + 2}`, subjects.high[e]!);
  }
  return cells;
}

function limitRows(reckoning: Reckoning, last: number): RawCellContent[][] {
  const { subjects, plan } = reckoning;
  const range = (name: string) => `${name}$${FIRST_LINE_ROW}:${name}$${last}`;
  const rows: RawCellContent[][] = [];
  for (let k = 0; k < subjects.count; k++) {
    if (!subjects.isCarried[k]) continue;
    const [typical, low, high] = [0, 1, 2].map((offset) => column(SECTION_COLUMN + k * 3 + offset)) as [
      string,
      string,
      string,
    ];
    for (const { limit, markets } of subjects.limits[k]!) {
      const basis = { fats: '$B$2', pour: '$B$6', cured: '$B$8' }[limit.basis];
      for (const market of markets) {
        const row = last + 1 + rows.length;
        const carrying = `SUMIF(${range(high)},">0",${range(limit.basis === 'fats' ? 'O' : 'N')})`;
        rows.push([
          `${limit.id} ${market}`,
          limit.maxPct,
          `=100*SUMPRODUCT(${range('H')},${range(typical)})/${basis}`,
          `=100*SUMPRODUCT(${range('M')},${range(high)})/(${basis}+${carrying})`,
          `=100*SUMPRODUCT(${range('L')},${range(low)})/${basis}`,
          `=100*(1-D${row}/B${row})`,
          `=IF(C${row}>B${row},"over",IF(D${row}>B${row},"atRisk",IF(D${row}>${1 - plan.margin}*B${row},"tight","clear")))`,
        ]);
      }
    }
  }
  return rows;
}

/** Constituents to declare: both ends in the cured bar, and whether they are above the threshold. */
function declarableRows({ subjects }: Reckoning, last: number, firstRow: number): RawCellContent[][] {
  const range = (name: string) => `${name}$${FIRST_LINE_ROW}:${name}$${last}`;
  const rows: RawCellContent[][] = [];
  subjects.declarables.forEach((declarables, k) => {
    const [low, high] = [1, 2].map((offset) => column(SECTION_COLUMN + k * 3 + offset)) as [string, string];
    for (const { id, markets, thresholdPct, allFrom } of declarables) {
      if (allFrom == null) continue;
      rows.push([
        `${id} ${markets.join()}`,
        thresholdPct,
        `=100*SUMPRODUCT(${range('L')},${range(low)})/$B$8`,
        `=100*SUMPRODUCT(${range('M')},${range(high)})/($B$8+SUMIF(${range(high)},">0",${range('N')}))`,
        `=IF(D${firstRow + rows.length}>B${firstRow + rows.length},"declare","")`,
      ]);
    }
  });
  return rows;
}

export interface Sheet {
  engine: HyperFormula;
  limitCount: number;
  /** Changes the scale of every absolute mass and so recalculates the whole sheet. */
  recalculate(scale: number): void;
  /** Nominal, high and verdict of a limit's row, in the order of the plan's subjects. */
  limit(index: number): { nominalPct: number; highPct: number; verdict: string };
}

/** Builds the sheet of a reckoning without portions or self-referring lines. */
export function buildSheet(reckoning: Reckoning): Sheet {
  const { plan, subjects } = reckoning;
  const last = FIRST_LINE_ROW + plan.count - 1;
  const cells = subjectCells(reckoning);
  const rows = headRows(reckoning, last);
  for (let i = 0; i < plan.count; i++) {
    const row = lineRow(reckoning, i, FIRST_LINE_ROW + i);
    for (let c = SECTION_COLUMN; c < SECTION_COLUMN + subjects.count * 3; c++) {
      row[c] = (cells.get(`${i}:${c}`) ?? 0) * partInSection(plan, 0, i);
    }
    rows.push(row);
  }
  const limits = limitRows(reckoning, last);
  rows.push(...limits);
  rows.push(...declarableRows(reckoning, last, rows.length + 1));
  const engine = HyperFormula.buildFromArray(rows, { licenseKey: 'gpl-v3' });
  const value = (col: number, row: number) => engine.getCellValue({ sheet: 0, col, row });
  return {
    engine,
    limitCount: limits.length,
    recalculate: (scale) => void engine.setCellContents({ sheet: 0, col: 1, row: 0 }, scale),
    limit: (index) => ({
      nominalPct: Number(value(2, last + index)),
      highPct: Number(value(3, last + index)),
      verdict: String(value(6, last + index)),
    }),
  };
}
