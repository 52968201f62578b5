/** Changes to a formula that the worktable makes, each giving a new one. */
import { USUAL_STAGE } from '../../core/formula/stages';
import { withAmount } from '../../core/formula/line-amount';
import type { Amount, Formula, Kind, Line, Material, Measure } from '../../core/formula/types';
import { newAmount } from '../../ui/habits';

type Portion = NonNullable<Formula['portions']>[number];

/** A modest load to start from; the maker changes it at once. */
const MODEST: Amount = { value: 1, unit: '%fats' };
const USUAL_AMOUNT: Record<Kind, Amount> = {
  fat: { value: 5, unit: '%fats' },
  wax: MODEST,
  alkali: MODEST,
  liquid: { value: 10, unit: '%liquid' },
  milk: { value: 50, unit: '%liquid' },
  fragrance: { value: 3, unit: '%fats' },
  essentialOil: MODEST,
  isolate: { value: 0.2, unit: '%fats' },
  clay: MODEST,
  salt: { value: 25, unit: '%fats' },
  sugar: MODEST,
  botanical: MODEST,
  colourant: { value: 0.5, unit: '%fats' },
  exfoliant: MODEST,
  fibre: { value: 0.1, unit: '%fats' },
  acid: MODEST,
  lactate: MODEST,
  other: MODEST,
};

/** The formula with a line of a material at its usual stage and a modest load; and that line's id. */
export function addLine(formula: Formula, material: Material): { formula: Formula; id: string } {
  const taken = new Set(formula.lines.map(({ id }) => id));
  let number = formula.lines.length + 1;
  while (taken.has(`l${number}`)) number++;
  const usual = USUAL_AMOUNT[material.kind];
  const needsGrams =
    (usual.unit === '%liquid' && !formula.liquid) ||
    (USUAL_STAGE[material.kind] === 'fats' && !formula.fatsMassG);
  const line: Line = {
    id: `l${number}`,
    material: material.id,
    stage: USUAL_STAGE[material.kind],
    amount: needsGrams ? newAmount(10) : usual,
    measuredBy: 'scale',
  };
  return { formula: { ...formula, lines: [...formula.lines, line] }, id: line.id };
}

export function changeLine(formula: Formula, id: string, change: Partial<Line>): Formula {
  return { ...formula, lines: formula.lines.map((line) => (line.id === id ? { ...line, ...change } : line)) };
}

/** Another amount of a line; how it is measured goes with it. */
export const setAmount = (formula: Formula, id: string, amount: Amount, how?: Measure): Formula => ({
  ...formula,
  lines: formula.lines.map((line) => (line.id === id ? withAmount(line, amount, how) : line)),
});

/** Lines to so much of what each is, 0 to 1, rounded down. */
export function scaleLines(formula: Formula, ids: readonly string[], share: number): Formula {
  const scaled = (value: number) => Math.floor(value * share * 1000) / 1000;
  return {
    ...formula,
    lines: formula.lines.map((line) =>
      ids.includes(line.id)
        ? { ...line, amount: { ...line.amount, value: scaled(line.amount.value) } }
        : line,
    ),
  };
}

export function removeLine(formula: Formula, id: string): Formula {
  return { ...formula, lines: formula.lines.filter((line) => line.id !== id) };
}

/** Moves a line one place up or down among the lines of its stage. */
export function moveLine(formula: Formula, id: string, by: -1 | 1): Formula {
  const from = formula.lines.findIndex((line) => line.id === id);
  const { stage } = formula.lines[from]!;
  let to = from + by;
  while (formula.lines[to] && formula.lines[to]!.stage !== stage) to += by;
  if (!formula.lines[to]) return formula;
  const lines = [...formula.lines];
  [lines[from], lines[to]] = [lines[to]!, lines[from]!];
  return { ...formula, lines };
}

/** Puts a line where another stands, moving the others along; the line takes the stage of that place. */
export function placeLine(formula: Formula, id: string, at: string): Formula {
  const from = formula.lines.findIndex((line) => line.id === id);
  const to = formula.lines.findIndex((line) => line.id === at);
  if (from < 0 || to < 0 || from === to) return formula;
  const lines = [...formula.lines];
  const [line] = lines.splice(from, 1);
  lines.splice(to, 0, { ...line!, stage: formula.lines[to]!.stage });
  return { ...formula, lines };
}

/** Splits the batter in two halves; lines stay in the common batter until they are moved. */
export function splitBatter(formula: Formula): Formula {
  return {
    ...formula,
    portions: [
      { id: 'A', share: 0.5 },
      { id: 'B', share: 0.5 },
    ],
  };
}

/** One batter again: every line goes back to it. */
export function joinBatter(formula: Formula): Formula {
  return { ...formula, portions: null, lines: formula.lines.map((line) => ({ ...line, portion: null })) };
}

/** Shares as parts of one, the last taking what rounding leaves. */
function wholeShares(portions: readonly Portion[]): Portion[] {
  const rounded = portions.map((portion) => ({ ...portion, share: Number(portion.share.toFixed(4)) }));
  const before = rounded.slice(0, -1).reduce((sum, { share }) => sum + share, 0);
  return rounded.map((portion, at) =>
    at === rounded.length - 1 ? { ...portion, share: Number((1 - before).toFixed(4)) } : portion,
  );
}

/** Gives a portion a share, 0 to 1; the others have the rest in their proportions. */
export function sharePortion(formula: Formula, id: string, share: number): Formula {
  const portions = formula.portions ?? [];
  const others = portions.filter((one) => one.id !== id);
  const rest = others.reduce((sum, one) => sum + one.share, 0);
  if (others.length === 0 || others.length === portions.length) return formula;
  const shared = portions.map((one) =>
    one.id === id
      ? { ...one, share }
      : { ...one, share: rest > 0 ? (one.share / rest) * (1 - share) : (1 - share) / others.length },
  );
  return { ...formula, portions: wholeShares(shared) };
}

/** One portion more, of an even share; the others give of theirs in proportion. */
export function addPortion(formula: Formula): Formula {
  const portions = formula.portions ?? [];
  const taken = new Set(portions.map(({ id }) => id));
  const id =
    [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].find((letter) => !taken.has(letter)) ?? `${portions.length + 1}`;
  const share = 1 / (portions.length + 1);
  const others = portions.map((one) => ({ ...one, share: one.share * (1 - share) }));
  return { ...formula, portions: wholeShares([...others, { id, share }]) };
}

/** Calls a portion otherwise, its lines with it; a name that another bears or that says nothing changes nothing. */
export function renamePortion(formula: Formula, id: string, name: string): Formula {
  const next = name.trim();
  const portions = formula.portions ?? [];
  if (next === '' || next === id || portions.some((one) => one.id === next)) return formula;
  return {
    ...formula,
    portions: portions.map((one) => (one.id === id ? { ...one, id: next } : one)),
    lines: formula.lines.map((line) => (line.portion === id ? { ...line, portion: next } : line)),
  };
}

/** Takes a portion away: what was stirred into it goes into all of the batter; of the last two it is one batter again. */
export function removePortion(formula: Formula, id: string): Formula {
  const rest = (formula.portions ?? []).filter((one) => one.id !== id);
  if (rest.length < 2) return joinBatter(formula);
  const total = rest.reduce((sum, { share }) => sum + share, 0);
  return {
    ...formula,
    portions: wholeShares(rest.map((one) => ({ ...one, share: one.share / total }))),
    lines: formula.lines.map((line) => (line.portion === id ? { ...line, portion: null } : line)),
  };
}
