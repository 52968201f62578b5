/** A bar of a spreadsheet as a formula: lye, liquid and fats told apart, percents understood. Pure. */
import { folded } from '../folded';
import type { Formula, Kind, Line, Stage } from '../formula/types';
import { USUAL_STAGE } from '../formula/stages';
import { amountOf, gramsOf, type PercentOf, type SheetAmount } from './amounts';
import { isLyeSolution, lyeApart } from './lye-solution';
import { isOfBatch, ofBatch, type OfBatch } from './of-batch';
import { isWholeFats } from './words';
import type { Role, SheetBar, SheetFault, SheetLine } from './cells';

const LYE =
  /^(?:lye|naoh|caustic(?: soda)?|sodium hydroxide|hydroxyde de sodium|idrossido di sodio|hidroxido de sodio|wodorotlenek sodu|soude(?: caustique)?|soda caustique|atznatron|natriumhydroxide?|(?:soda|sosa) caustica|caustische soda|natronloog)\b/;
const SUPERFAT =
  /^(?:superfat(?:ting)?|sf|lye discount|uberfettung|uf|surgras(?:sage)?|surgraissage|sovragrasso|sovraingrassa(?:mento|ggio)|sconto soda|sobreengrasado|sobregrasa|overvet(?:ting)?)\b/;
/** Water said by what it is to the lye, or to the fats. */
const LIQUIDS: readonly (readonly [Liquid['basis'], RegExp])[] = [
  ['alkaliConcentration', /^(?:lye|naoh|laugen?|soude)[ -]?(?:conc|strength|konz)/],
  [
    'perAlkali',
    /^(?:(?:water|liquid|wasser|eau|acqua|agua)\s*(?::|to|\/|zu)\s*(?:lye|naoh|lauge|soude|soda|sosa)|(?:lye|naoh)\s*(?::|to|\/)\s*(?:water|liquid)|lye ratio|water ratio)\b/,
  ],
  ['ofFats', /^(?:water|wasser|eau|acqua|agua)\s*(?:as )?(?:a )?(?:%|percent|pct)(?: of .*)?$/],
];
const LYE_FIRST = /^(?:lye|naoh)\s*(?::|to|\/)/;
const POTASH =
  /^(?:koh|potassium hydroxide|hydroxyde de potassium|idrossido di potassio|hidroxido de potasio|kaliumhydroxide?|kaliloog|kalilauge|potas(?:se|sa|a))\b/;

type Liquid = NonNullable<Formula['liquid']>;

/** What a row of a recipe is: what it was pointed at as, else by its name. */
export function roleOf({ name, role }: Pick<SheetLine, 'name' | 'role'>): Role {
  if (role) return role;
  if (isOfBatch(name)) return 'batch';
  const words = folded(name);
  if (POTASH.test(words)) return 'potash';
  if (LIQUIDS.some(([, pattern]) => pattern.test(words))) return 'liquid';
  if (isLyeSolution(name)) return 'lyeSolution';
  if (LYE.test(words)) return 'lye';
  if (SUPERFAT.test(words)) return 'superfat';
  return isWholeFats(name) ? 'fats' : 'material';
}

/** How much liquid a row says that says it against the lye or the fats. */
function liquidOf({ name, amount: { value, unit } }: SheetLine): Liquid {
  const words = folded(name);
  const basis = LIQUIDS.find(([, pattern]) => pattern.test(words))![0];
  if (basis === 'perAlkali')
    return { basis, value: unit === ':1' && value > 0 && LYE_FIRST.test(words) ? 1 / value : value };
  // "0.33" is a third, as a sheet keeps its percents.
  return { basis, value: value > 0 && value <= 1 ? 100 * value : value };
}

/** What is known of an ingredient. */
export interface Known {
  id: string;
  kind: Kind;
}

/** Sums within so many percent of a hundred count as a hundred. */
const ABOUT = 1.5;

/**
 * What percents of a bar are of, by what adds up to a hundred: the fats alone, or everything. Null where the bar states
 * none, or neither adds up.
 */
export function percentsOf(bar: SheetBar, find: (name: string) => Known | null): PercentOf | null {
  const lines = bar.lines.filter(
    (line) => line.amount.unit === '%' && !['superfat', 'liquid', 'batch'].includes(roleOf(line)),
  );
  const sum = (of: readonly SheetLine[]) => of.reduce((total, { amount }) => total + amount.value, 0);
  const fats = lines.filter(({ name }) => find(name)?.kind === 'fat');
  if (fats.length === 0) return null;
  if (Math.abs(sum(fats) - 100) <= ABOUT) return 'fats';
  return Math.abs(sum(lines) - 100) <= ABOUT ? 'whole' : null;
}

export interface Taking {
  find: (name: string) => Known | null;
  /** What percents are of where a bar does not say so by itself. */
  percentOf: PercentOf;
  /** Grams of fats, or of the whole, of bars in percent alone. */
  batchG: number;
  /** Where neither lye nor superfat is stated, percent. */
  superfatPct: number;
}

export type Taken = { ok: true; formula: Formula; notes: string[] } | { ok: false; faults: SheetFault[] };

/** Fats and liquids are where they are; everything else goes in when the sheet says. */
function stageOf({ stage }: SheetLine, { kind }: Known): Stage {
  const usual = USUAL_STAGE[kind];
  if (stage === undefined) return usual;
  if (stage === 'fats' || usual === 'fats') {
    const isLater = stage === 'intoFats' || stage === 'afterCook';
    return usual === 'fats' && isLater ? stage : usual;
  }
  // What is of the liquid goes into the lye with it.
  if (stage === 'lye' && usual === 'liquid') return usual;
  return stage === 'liquid' && usual !== 'liquid' ? usual : stage;
}

function linesOf(bar: SheetBar, { find }: Taking, percentOf: PercentOf, wholeG: number) {
  const faults: SheetFault[] = [];
  const lines: Line[] = [];
  for (const said of bar.lines) {
    const { row, name, amount } = said;
    const role = roleOf(said);
    if (role === 'potash')
      faults.push({ row, message: `${name}: bars are made with sodium hydroxide here.` });
    if (role !== 'material') continue;
    const known = find(name);
    if (!known) {
      faults.push({ row, message: `“${name}” is not known. Choose the material it is.` });
      continue;
    }
    const { value, unit, measuredBy } = amount;
    if (unit === ':1') {
      faults.push({ row, message: `${name} is a ratio. Give an amount of it.` });
      continue;
    }
    lines.push({
      id: `l${lines.length + 1}`,
      material: known.id,
      stage: stageOf(said, known),
      amount: amountOf({ value, unit }, percentOf, wholeG),
      measuredBy: measuredBy ?? (/^(?:tsp|tbsp|cup)/.test(unit) ? 'spoon' : 'scale'),
      ...(said.portion === undefined ? {} : { portion: said.portion }),
    });
  }
  return { lines, faults };
}

/** Two figures are the same but for rounding, as a share of them. */
const APART = 0.01;

/** A name that says how it is made. */
const HOT = /\bhot[ -]process|\b(?:oh|cp)?hp$|heissverfahren|\bgekocht/;

/** Purity of the sodium hydroxide where a bar says none, percent. */
const USUAL_PURITY_PCT = 99;

/** Liquid where a bar says none, percent of its fats. */
const USUAL_LIQUID_PCT = 33;

function lyeMass({ value, unit }: SheetAmount, percentOf: PercentOf, wholeG: number): number | null {
  return unit === ':1' ? null : gramsOf(amountOf({ value, unit }, percentOf, wholeG));
}

/** Grams of sodium hydroxide for a gram of fats, beyond which the two cannot belong together whatever the fats are. */
const LYE_OF_FATS = [0.08, 0.27] as const;

/** What speaks against a lye beside its fats, in words; null where nothing does, or where the fats are no masses. */
function oddLye(fats: readonly Line[], lyeG: number | null): string | null {
  const masses = fats.map(({ amount }) => gramsOf(amount));
  if (lyeG === null || masses.some((massG) => massG === null)) return null;
  const fatsG = masses.reduce<number>((sum, massG) => sum + massG!, 0);
  const [least, most] = LYE_OF_FATS;
  if (lyeG >= least * fatsG && lyeG <= most * fatsG) return null;
  const said = (massG: number) => `${Number(massG.toFixed(2))} g`;
  return `${said(lyeG)} of lye and ${said(fatsG)} of fats do not belong together: is a mark, a unit or a row read wrong? Look at it before a pour.`;
}

/** Lines and portions that go together; portions whose shares are not all said are left out, and told. */
function portioned(lines: readonly Line[], { portions = [] }: OfBatch) {
  const named = [...new Set(lines.flatMap(({ portion }) => portion ?? []))];
  const isWhole = portions.length > 0 && named.every((one) => portions.some(({ id }) => id === one));
  if (isWhole) return { lines, portions, note: null };
  const plain = lines.map(({ portion: _, ...line }) => line);
  const note =
    named.length > 0 &&
    `It names portions (${named.join(', ')}) without saying the share of each: they are not taken. Part it on the table.`;
  return { lines: plain, portions: null, note };
}

interface Stated {
  lines: readonly Line[];
  lyeG: number | null;
  superfat: SheetLine | undefined;
  /** Whether what it holds of liquids says how much there is. */
  isWeighed: boolean;
  /** The row that says the liquid against the lye or the fats. */
  liquid: SheetLine | undefined;
}

/** What is to be looked at in a formula that was taken, in words. */
function notesOf({ lines, lyeG, superfat, isWeighed, liquid }: Stated, superfatPct: number): string[] {
  const fats = lines.filter(({ stage }) => stage === 'fats');
  const inPercent = fats.filter(({ amount }) => amount.unit === '%fats');
  const sum = inPercent.reduce((total, { amount }) => total + amount.value, 0);
  return [
    oddLye(fats, lyeG),
    lyeG !== null &&
      superfat &&
      `It states the lye and a superfat (${superfat.said}): the lye is taken, and the superfat follows from it.`,
    lyeG === null &&
      !superfat &&
      `Neither lye nor superfat is stated: ${superfatPct} % superfat is taken. Look at it before a pour.`,
    inPercent.length > 0 &&
      Math.abs(sum - 100) > ABOUT &&
      `Its fats add up to ${Number(sum.toFixed(1))} %: look for what is missing.`,
    isWeighed &&
      liquid &&
      `It states how much liquid and ${liquid.name} (${liquid.said}): the amount is taken, and the other follows from it.`,
    !isWeighed && !liquid && `No liquid is stated: ${USUAL_LIQUID_PCT} % of the fats is taken.`,
  ].filter((note) => typeof note === 'string');
}

/** A bar's rows with a lye solution taken apart. */
function withoutSolution(bar: SheetBar, { find }: Taking) {
  const isRole = (role: Role) => (line: SheetLine) => roleOf(line) === role;
  const liquid = ({ name }: SheetLine) => ['liquid', 'milk'].includes(find(name)?.kind ?? '');
  const is = { solution: isRole('lyeSolution'), lye: isRole('lye'), liquid };
  return lyeApart(bar.lines, is, (name) => find(name) !== null);
}

/** Superfats, or sums of the fats, of which two rows say different ones. */
function saidTwice(lines: readonly SheetLine[]): SheetFault[] {
  return (['superfat', 'fats'] as const).flatMap((role) => {
    const [first, ...others] = lines.filter((line) => roleOf(line) === role);
    const isApart = ({ amount: { value, unit } }: SheetLine) =>
      unit === first!.amount.unit && Math.abs(value - first!.amount.value) > APART * value;
    const other = others.find(isApart);
    if (!first || !other) return [];
    const message = `${first.name} is ${first.said} in row ${first.row} and ${other.said} in row ${other.row}. Say which is no part of the bar.`;
    return [{ row: other.row, message }];
  });
}

/**
 * A bar as a formula; every row that cannot be taken is told.
 *
 * @example
 * formulaOf(bar, taking); // a formula, and every row that could not be taken
 */
export function formulaOf(said: SheetBar, taking: Taking): Taken {
  const apart = withoutSolution(said, taking);
  const bar = { ...said, lines: apart.lines };
  const percentOf = percentsOf(bar, taking.find) ?? taking.percentOf;
  const stated = (role: Role) => bar.lines.find((line) => roleOf(line) === role);
  const [lye, superfat, fats, liquid] = [stated('lye'), stated('superfat'), stated('fats'), stated('liquid')];
  const fatsG = fats ? gramsOf(fats.amount) : null;
  const batch = ofBatch(bar.lines.filter((line) => roleOf(line) === 'batch'));
  const { lines, faults } = linesOf(bar, taking, percentOf, taking.batchG);
  const parted = portioned(lines, batch);
  const isFat = ({ stage }: Line) => stage === 'fats';
  if (!lines.some(isFat))
    faults.push({ row: bar.row, message: `${bar.name} holds no fat that is known here.` });
  faults.push(...apart.faults, ...saidTwice(bar.lines));
  if (faults.length > 0) return { ok: false, faults };
  const lyeG = lye ? lyeMass(lye.amount, percentOf, taking.batchG) : null;
  const isInPercent = lines.some((line) => isFat(line) && line.amount.unit === '%fats');
  const liquids = lines.filter(({ stage }) => stage === 'liquid' || stage === 'heldBack');
  // What stands in percent of the liquid says what it is made of, not how much there is.
  const isWeighed = liquids.some(({ amount }) => amount.unit !== '%liquid');
  const stands = { lines, lyeG, superfat, isWeighed, liquid };
  const notes = [...notesOf(stands, taking.superfatPct), ...(parted.note ? [parted.note] : [])];
  return {
    ok: true,
    notes,
    formula: {
      format: 'proportia.formula/1',
      name: bar.name,
      process: batch.process ?? (HOT.test(folded(bar.name)) ? 'hot' : 'cold'),
      fatsMassG: isInPercent ? (fatsG ?? taking.batchG) : null,
      alkali: {
        ...(lyeG !== null ? { massG: lyeG } : { superfatPct: superfat?.amount.value ?? taking.superfatPct }),
        purityPct: batch.purityPct ?? USUAL_PURITY_PCT,
      },
      ...(isWeighed
        ? {}
        : { liquid: liquid ? liquidOf(liquid) : { basis: 'ofFats' as const, value: USUAL_LIQUID_PCT } }),
      cure: batch.cure ?? { residualWaterPct: 8 },
      marginPct: batch.marginPct ?? 10,
      ...(batch.bars === undefined ? {} : { bars: batch.bars }),
      ...(batch.usedOn === undefined ? {} : { usedOn: batch.usedOn }),
      ...(batch.scentNaming === undefined ? {} : { scentNaming: batch.scentNaming }),
      ...(parted.portions ? { portions: parted.portions } : {}),
      lines: [...parted.lines],
    },
  };
}
