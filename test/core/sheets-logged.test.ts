/** Logs of batches: planned beside weighed. The sheets were written down before the reader was tried on them. */
import { expect } from 'chai';
import { accountOf, cellRoles } from '../../src/core/sheets/account';
import { guessLayout } from '../../src/core/sheets/layout';
import { loggedBatches } from '../../src/core/sheets/logged';
import { readSheet } from '../../src/core/sheets/read';
import { formulaOf, type Known } from '../../src/core/sheets/recipe';

const KINDS: [RegExp, Known][] = [
  [/oliv/i, { id: 'olive', kind: 'fat' }],
  [/coco|kokos/i, { id: 'coconut', kind: 'fat' }],
  [/water|wasser|eau/i, { id: 'water', kind: 'liquid' }],
  [/clay|ton/i, { id: 'kaolin', kind: 'clay' }],
  [/lavend/i, { id: 'lavender', kind: 'essentialOil' }],
];
const find = (name: string) => KINDS.find(([pattern]) => pattern.test(name))?.[1] ?? null;

/** Each batch of a log as "code day: line grams, …; what was left". */
function logged(text: string, mark = ','): string[] {
  const rows = text.split('\n').map((line) => line.split(mark).map((cell) => cell.trim()));
  const layout = guessLayout(rows);
  const { bars } = readSheet(rows, layout, 'Log');
  return bars.flatMap((bar) => {
    const taken = formulaOf(bar, { find, percentOf: 'fats', batchG: 1000, superfatPct: 5 });
    if (!taken.ok) return [`${bar.name}: ${taken.faults.map(({ message }) => message).join(' ')}`];
    const { formula } = taken;
    const materialOf = (line: string) => formula.lines.find(({ id }) => id === line)?.material ?? line;
    return loggedBatches(rows, layout, bar, accountOf(bar, formula)).map(
      ({ code, day, bars, weighed, left }) => {
        const said = weighed.map(({ line, massG }) => `${materialOf(line)} ${Number(massG.toFixed(2))}`);
        return `${code} ${day}${bars === null ? '' : ` ${bars} bars`}: ${said.join(', ')}${left.length > 0 ? `; ${left.join(' ')}` : ''}`;
      },
    );
  });
}

const ROWS = 'Olive oil,500,501.2\nCoconut oil,300,299.5\nWater,230,231\nLye,115,115.1';
const MASSES = 'olive 501.2, coconut 299.5, water 231, alkali 115.1';

describe('batches of a log', () => {
  const LOGS: [string, string, string[]][] = [
    ['no code and no day', `Ingredient,Planned (g),Actual (g)\n${ROWS}`, [` null: ${MASSES}`]],
    [
      'code and day above the heads',
      `Batch no,T-014,\nDate,3.11.2026,\nIngredient,Planned (g),Actual (g)\n${ROWS}`,
      [`T-014 2026-11-03: ${MASSES}`],
    ],
    [
      'code and day in cells with their names',
      `Batch: T-015,,\nMade on: 2026-11-04,,\nIngredient,Planned (g),Actual (g)\n${ROWS}`,
      [`T-015 2026-11-04: ${MASSES}`],
    ],
    [
      'how many bars it was cut into',
      `Batch,T-016,\nYield,13,\nMade on,4 Nov 2026,\nIngredient,Planned (g),Actual (g)\n${ROWS}`,
      [`T-016 2026-11-04 13 bars: ${MASSES}`],
    ],
    [
      'a column each, in every row',
      `Product,Batch,Date,Ingredient,Planned (g),Used (g)\n${['T1,2026-10-01', 'T2,2026-10-08']
        .flatMap((batch) => ROWS.split('\n').map((row) => `Moss,${batch},${row}`))
        .join('\n')}`,
      [`T1 2026-10-01: ${MASSES}`, `T2 2026-10-08: ${MASSES}`],
    ],
    [
      'a column each, in the first row alone',
      `Product,Batch,Made on,Ingredient,Planned (g),Used (g)\n${ROWS.split('\n')
        .map((row, at) => (at === 0 ? `Moss,M1,12 Oct 2026,${row}` : `,,,${row}`))
        .join('\n')}`,
      [`M1 2026-10-12: ${MASSES}`],
    ],
    [
      'a day that reads two ways, which is left open',
      `Batch,T3,\nDate,3/11/2026,\nIngredient,Planned (g),Actual (g)\n${ROWS}`,
      [`T3 null: ${MASSES}; “3/11/2026” reads two ways: say the day.`],
    ],
    [
      'ounces by their head',
      'Ingredient,Planned (oz),Actual (oz)\nOlive oil,16,16.1\nWater,8,8\nLye,2.1,2.1',
      [' null: olive 456.43, water 226.8, alkali 59.53'],
    ],
    [
      'what was not weighed, or not in figures',
      'Ingredient,Planned (g),Actual (g)\nOlive oil,500,501\nCoconut oil,300,300\nWater,230,230\nClay,8,\nLavender,20,all of it\nLye,115,115',
      [
        ' null: olive 501, coconut 300, water 230, alkali 115; Lavender: “all of it” is no mass. Clay: nothing is weighed.',
      ],
    ],
  ];
  for (const [name, text, wanted] of LOGS)
    it(`are read with ${name}`, () => expect(logged(text)).to.deep.equal(wanted));

  it('are read in German, with commas for points', () => {
    const text =
      'Charge: 12/26;;\nDatum: 03.11.2026;;\nZutat;Soll (g);Ist (g)\nOlivenöl;500,0;501,2\nKokosöl;300,0;299,5\nWasser;230,0;231,0\nNaOH;115,0;115,1';
    expect(logged(text, ';')).to.deep.equal([`12/26 2026-11-03: ${MASSES}`]);
  });

  it('have their days read as one of them can only be read', () => {
    const rows = (batch: string) =>
      ROWS.split('\n')
        .map((row) => `Moss,${batch},${row}`)
        .join('\n');
    const text = `Product,Batch,Date,Ingredient,Planned (g),Used (g)\n${rows('A,3/11/2026')}\n${rows('B,3/25/2026')}`;
    expect(logged(text).map((batch) => batch.split(':')[0])).to.deep.equal(['A 2026-03-11', 'B 2026-03-25']);
  });

  it('are two where the same fat was weighed twice in one of them', () => {
    const text =
      'Ingredient,Planned (g),Actual (g)\nOlive oil,300,301\nOlive oil,200,199\nWater,150,150\nLye,70,70';
    expect(logged(text)).to.deep.equal([' null: olive 301, olive 199, water 150, alkali 70']);
  });

  it('show which cells they are read from; no cell names a bar that is called as its file', () => {
    const text = `Batch no,T-014,\nMade on,3.11.2026,\nYield,13,\nIngredient,Planned (g),Actual (g)\n${ROWS}`;
    const rows = text.split('\n').map((row) => row.split(','));
    const layout = guessLayout(rows);
    const [bar] = readSheet(rows, layout, 'Log').bars;
    const taken = formulaOf(bar!, { find, percentOf: 'fats', batchG: 1000, superfatPct: 5 });
    if (!taken.ok) throw new Error('not read');
    const roles = cellRoles(
      layout,
      [bar!],
      loggedBatches(rows, layout, bar!, accountOf(bar!, taken.formula)),
    );
    const cellsOf = (role: string) => [...roles].filter(([, one]) => one === role).map(([at]) => at);
    expect(cellsOf('batch').sort()).to.deep.equal(['0 1', '1 1', '2 1', '4 2', '5 2', '6 2', '7 2']);
    expect(cellsOf('bar')).to.deep.equal([]);
    const [titled] = readSheet(
      [['Moss', '', ''], ...rows.slice(3)],
      guessLayout([['Moss', '', ''], ...rows.slice(3)]),
      'Log',
    ).bars;
    expect([titled!.name, titled!.row, titled!.column]).to.deep.equal(['Moss', 1, 0]);
  });
});
