/** `npm run bench`: one JSON line a measure, each a ratio of two times taken in this very run. */
import { assess, reckon, type Reckoning } from '../../src/core/assess';
import { REQUEST_FORMAT, MARKETS, type AssessmentRequest, type Formula } from '../../src/core/formula/types';
import { createGround, type Ground } from '../../src/core/loads/ground';
import { rulebook } from '../../src/rulebook';
import type { SweepRow } from '../../src/core/sweep';
import { sweepOnThreads } from '../../src/server/jobs/sweep';
import { endThreads } from '../../src/server/jobs/threads';
import { shareSetting } from '../../src/server/jobs/reckon-jobs';
import {
  allLimits,
  asStored,
  certifiedMaterials,
  generateFormula,
  generateProducts,
  seeded,
} from '../support/generate';
import { flatten, leastHeadroom } from './bare';
import { buildSheet } from './sheet';
import { benchChanges } from './changes';
import { benchHouse } from './house';
import { benchKeystroke } from './keystroke';
import { sized } from './size';
import { benchStore } from './store';
import { benchTonight } from './tonight';

const ON_DATE = '2026-11-24';
const PRODUCTS = sized(5000, 120);
/** Percent of the whole that arithmetic alone may part a row from the sheet's. */
const MOST_APART_PCT = 1e-9;
/** Rounds that count, and those that go before to warm up, as a screen or server in use is warm. */
const SHEET_ROUNDS = sized(60, 1);
const SHEET_WARM_UP = sized(60, 1);
const ASSESSMENTS_A_ROUND = 10;
const SWEEP_ROUNDS = sized(7, 1);

const materials = certifiedMaterials();
const byId = new Map(materials.map((material) => [material.id, material]));
const limits = allLimits();
const { declarables, demands } = rulebook();
const stored = { material: (id: string) => byId.get(id), limits, declarables, demands };

function median(times: number[]): number {
  return [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
}

function took(work: () => void): number {
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** A formula that a sheet can reckon: no portions, and no line in percent of what it is itself part of. */
function sheetFormula(): Formula {
  const formula = generateFormula(40, seeded(3));
  const lines = formula.lines.map((line) =>
    ['%cured', '%pour'].includes(line.amount.unit)
      ? { ...line, portion: null, amount: { value: line.amount.value, unit: '%fats' as const } }
      : { ...line, portion: null },
  );
  return { ...formula, portions: null, lines };
}

function reckoned(formula: Formula, ground: Ground): Reckoning {
  const reckoning = reckon(
    formula,
    formula.lines.map((line) => byId.get(line.material)!),
    ground,
  );
  if (typeof reckoning === 'string') throw new Error(reckoning);
  return reckoning;
}

function benchSheet() {
  const formula = sheetFormula();
  const request: AssessmentRequest = {
    format: REQUEST_FORMAT,
    formula,
    markets: [...MARKETS],
    onDate: ON_DATE,
  };
  const ground = createGround({ limits, declarables }, MARKETS, ON_DATE);
  const reckoning = reckoned(formula, ground);
  const sheet = buildSheet(reckoning);
  const result = assess(request, stored);
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  const known = new Map(result.assessment.limits.map((row) => [`${row.id} ${row.market}`, row]));
  const isOfUnproven = (id: string) => limits.some((one) => one.id === id && one.onlyUnproven === true);
  let worst = 0;
  for (let i = 0; i < sheet.limitCount; i++) {
    const key = String(sheet.engine.getCellValue({ sheet: 0, col: 0, row: 11 + formula.lines.length + i }));
    const { nominalPct, highPct, verdict } = sheet.limit(i);
    const row = known.get(key);
    // What speaks only of scents without a limit of their own has no row where every scent has one.
    if (!row && isOfUnproven(key.split(' ')[0]!)) continue;
    if (!row) throw new Error(`${key}: a row of the sheet that the assessment does not have`);
    if (row.verdict !== verdict) throw new Error(`${key}: ${row.verdict} here, ${verdict} in the sheet`);
    worst = Math.max(worst, Math.abs(row.nominalPct - nominalPct), Math.abs(row.highPct - highPct));
  }
  if (worst > MOST_APART_PCT) throw new Error(`A row is ${worst} % apart from the sheet.`);
  // Both by turns, so that whatever else the machine does weighs on both; the first half only warms up.
  const rounds = Array.from({ length: SHEET_WARM_UP + SHEET_ROUNDS }, (_, round) => {
    const sheetMs = took(() => sheet.recalculate(1 + (round % 7) / 1000));
    const assessMs =
      took(() => {
        for (let i = 0; i < ASSESSMENTS_A_ROUND; i++) {
          formula.fatsMassG = 1000 + ((round + i) % 7);
          assess(request, stored);
        }
      }) / ASSESSMENTS_A_ROUND;
    return { sheetMs, assessMs };
  }).slice(SHEET_WARM_UP);
  const sheetMs = median(rounds.map((round) => round.sheetMs));
  const assessMs = median(rounds.map((round) => round.assessMs));
  console.log(
    JSON.stringify({
      measure:
        'one full assessment, 40 lines, 5 markets, against a spreadsheet engine recalculating the same sheet',
      ratio: Number(median(rounds.map((round) => round.sheetMs / round.assessMs)).toFixed(1)),
      wanted: 'at least 40',
      sheetMs: Number(sheetMs.toFixed(3)),
      assessMs: Number(assessMs.toFixed(3)),
      limitRows: sheet.limitCount,
      largestDifferencePct: worst,
    }),
  );
}

async function benchSweep() {
  const products = generateProducts(PRODUCTS, 1);
  const ground = createGround({ limits, declarables }, MARKETS, ON_DATE);
  const flat = products.map(({ formula }) => flatten(reckoned(formula, ground), ground));
  const bare = () => {
    for (const product of flat)
      for (let market = 0; market < MARKETS.length; market++) leastHeadroom(product, market);
  };
  const storedProducts = asStored(products);
  let rows: SweepRow[] = [];
  let mostMb = 0;
  const rounds: { bareMs: number; sweepMs: number }[] = [];
  for (let round = 0; round < 2 * SWEEP_ROUNDS; round++) {
    const bareMs = took(bare);
    const start = performance.now();
    const setting = shareSetting('bench', { materials, limits, declarables });
    rows = await sweepOnThreads(
      storedProducts,
      { setting, markets: MARKETS, onDate: ON_DATE },
      { onProgress: () => (mostMb = Math.max(mostMb, process.memoryUsage().rss / 1e6)) },
    );
    if (round >= SWEEP_ROUNDS) rounds.push({ bareMs, sweepMs: performance.now() - start });
  }
  let differences = 0;
  rows.forEach(({ markets }, index) =>
    markets!.forEach(({ headroomPct }, market) => {
      const least = leastHeadroom(flat[index]!, market);
      if (
        Number.isFinite(least) &&
        Math.abs((headroomPct ?? NaN) - least) > 1e-9 * Math.max(1, Math.abs(least))
      )
        differences++;
    }),
  );
  if (differences > 0) throw new Error(`${differences} headrooms differ from bare arithmetic.`);
  const sweepMs = median(rounds.map((round) => round.sweepMs));
  const bareMs = median(rounds.map((round) => round.bareMs));
  console.log(
    JSON.stringify({
      measure: `sweep of ${PRODUCTS} products, 5 markets, on 2 threads, against bare arithmetic on typed arrays`,
      ratio: Number(median(rounds.map((round) => round.sweepMs / round.bareMs)).toFixed(2)),
      wanted: 'at most 3.5',
      sweepMs: Number(sweepMs.toFixed(1)),
      bareMs: Number(bareMs.toFixed(1)),
      memoryMb: Math.round(mostMb),
      differences,
    }),
  );
}

/** The parts by name; `npm run bench -- sheet sweep` runs only those, `--short` all on a small scale. */
const PARTS: Record<string, () => void | Promise<void>> = {
  sheet: benchSheet,
  sweep: benchSweep,
  store: benchStore,
  changes: benchChanges,
  tonight: benchTonight,
  keystroke: benchKeystroke,
  house: benchHouse,
};
const asked = process.argv.slice(2).filter((one) => !one.startsWith('--'));
const unknown = asked.filter((name) => !(name in PARTS));
if (unknown.length > 0)
  throw new Error(`No part ${unknown.join(', ')}: there are ${Object.keys(PARTS).join(', ')}.`);
for (const [name, part] of Object.entries(PARTS))
  if (asked.length === 0 || asked.includes(name)) await part();
await endThreads();
