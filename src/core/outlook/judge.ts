/**
 * The outlook: what makers judge by experience, as plain rules with their reasons. Thresholds are the craft's
 * usual ones; they are advice, and each judgement says what it leans on.
 */
import { isFatty } from '../formula/fats';
import { cutWindow, setsFast } from '../curing/window';
import { isUnknown, type TraitMaterial } from '../formula/traits';
import type { FattyAcids, Formula, UsedOn } from '../formula/types';

/** Calm: nothing to mind. Some: mind it. Marked: expect it. */
export type Grade = 'calm' | 'some' | 'marked';

export interface Judgement {
  id:
    | 'heat'
    | 'speed'
    | 'lather'
    | 'drying'
    | 'browning'
    | 'staining'
    | 'scratch'
    | 'weeping'
    | 'keeping'
    | 'face'
    | 'cutting'
    | 'fading';
  grade: Grade;
  /** What is to be expected, in words. */
  says: string;
  reasons: string[];
  /** `figures`: from weighed loads and known compositions; `usual`: from how such materials usually behave. */
  leansOn: 'figures' | 'usual';
}

/** What the judgements are made from: loads in percent of the fats, the fats' acids, and the materials. */
export interface Outlook {
  formula: Formula;
  fatsG: number;
  superfatPct: number;
  liquidPctFats: number;
  loads: { material: TraitMaterial; massG: number; pctFats: number; name: string; stage: string }[];
}

/** Not firm before this, a block is one to wait for. */
const LATE_HOURS = 24;

const pct = (value: number) => `${Number(value.toFixed(1))} %`;
const grade = (value: number, some: number, marked: number): Grade =>
  value >= marked ? 'marked' : value >= some ? 'some' : 'calm';

function fatLoads({ loads }: Outlook) {
  return loads.filter(({ material }) => isFatty(material));
}

/** Mean share of some fatty acids over the fats, percent. */
function acidsPct(outlook: Outlook, acids: readonly (keyof FattyAcids)[]): number {
  const sum = fatLoads(outlook).reduce((total, { material, massG }) => {
    const share = acids.reduce((part, acid) => part + (material.fattyAcids?.[acid] ?? 0), 0);
    return total + massG * share;
  }, 0);
  return outlook.fatsG > 0 ? sum / outlook.fatsG : 0;
}

function kindPct({ loads }: Outlook, kind: string): number {
  return loads
    .filter(({ material }) => material.kind === kind)
    .reduce((sum, { pctFats }) => sum + pctFats, 0);
}

function constituentPct({ loads }: Outlook, id: string): number {
  return loads.reduce((sum, { material, pctFats }) => {
    const share = material.constituents?.find((entry) => entry.id === id)?.typicalPct ?? 0;
    return sum + (pctFats * share) / 100;
  }, 0);
}

/** Salt stirred into the batter, percent of the fats; brine in the lye is not a salted bar. */
function saltPct({ loads }: Outlook): number {
  return loads
    .filter(({ material, stage }) => material.kind === 'salt' && stage !== 'lye' && stage !== 'liquid')
    .reduce((sum, { pctFats }) => sum + pctFats, 0);
}

const lauricPct = (outlook: Outlook) => acidsPct(outlook, ['lauric', 'myristic', 'caprylicCapric']);

function heat(outlook: Outlook): Judgement {
  const sugars = constituentPct(outlook, 'sugars');
  const found = grade(sugars, 1, 2.5);
  const brought = outlook.loads.filter(({ material }) =>
    material.constituents?.some(({ id }) => id === 'sugars'),
  );
  const says = {
    calm: 'No more heat than the lye brings.',
    some: 'Sugars warm the batter: watch it, insulate little.',
    marked: 'Sugars heat the block: it may crack, volcano or scorch. Pour cool, leave uncovered, chill.',
  }[found];
  const reasons = brought.map(({ name }) => name);
  return {
    id: 'heat',
    grade: found,
    says,
    reasons: [`sugars together ${pct(sugars)} of the fats`, ...reasons],
    leansOn: 'figures',
  };
}

function speed(outlook: Outlook): Judgement {
  const reasons: string[] = [];
  const clay = kindPct(outlook, 'clay');
  if (clay >= 1.5) reasons.push(`clay ${pct(clay)}`);
  if (constituentPct(outlook, 'sugars') >= 1) reasons.push('sugars');
  const wax = kindPct(outlook, 'wax');
  if (wax >= 1) reasons.push(`wax ${pct(wax)}`);
  for (const { material, name, pctFats } of outlook.loads) {
    if (material.behaviour?.speeds && pctFats > 0) reasons.push(name);
  }
  const ricing = outlook.loads.filter(({ material, pctFats }) => material.behaviour?.rices && pctFats > 0);
  if (ricing.length > 0) {
    const says =
      'It rices: the batter breaks into grains and oil. Stir it in last, by hand; blend it smooth again.';
    return {
      ...{ id: 'speed', grade: 'marked', says, leansOn: 'usual' },
      reasons: [...ricing.map(({ name }) => `${name} rices`), ...reasons],
    };
  }
  const unknown = outlook.loads.filter(({ material, pctFats }) => pctFats > 0 && isUnknown(material));
  if (unknown.length > 0 && reasons.length < 3) {
    const says = 'Not known: how a scent here behaves was never said. Try a little of it in batter first.';
    return {
      ...{ id: 'speed', grade: 'some', says, leansOn: 'usual' },
      reasons: [...unknown.map(({ name }) => `not known of ${name}`), ...reasons],
    };
  }
  const found = grade(reasons.length, 1, 3);
  const says = {
    calm: 'Time to work.',
    some: 'Something here hurries the batter: have everything ready.',
    marked: 'Several accelerants meet: it may set in the pot. Stir by hand, pour at a light trace.',
  }[found];
  return { id: 'speed', grade: found, says, reasons, leansOn: 'usual' };
}

function lather(outlook: Outlook): Judgement {
  const lauric = lauricPct(outlook);
  const salt = saltPct(outlook);
  const clay = kindPct(outlook, 'clay');
  const reasons = [`short lathering acids ${pct(lauric)} of the fats`];
  let found: Grade = lauric >= 14 ? 'calm' : lauric >= 8 ? 'some' : 'marked';
  if (salt >= 20 && lauric < 45) {
    found = 'marked';
    reasons.push(`salt ${pct(salt)} kills lather`);
  }
  if (clay > 5) {
    if (found === 'calm') found = 'some';
    reasons.push(`clay ${pct(clay)} drags it`);
  }
  const says = { calm: 'Lathers freely.', some: 'A low, creamy lather.', marked: 'Hardly lathers.' }[found];
  return { id: 'lather', grade: found, says, reasons, leansOn: 'usual' };
}

/** So much fat left free makes even a coconut bar mild, percent. */
const MILD_SUPERFAT_PCT = 25;

function drying(outlook: Outlook): Judgement {
  const lauric = lauricPct(outlook);
  const stripping = lauric * Math.max(0, 1 - outlook.superfatPct / MILD_SUPERFAT_PCT);
  const found = grade(stripping, 18, 40);
  const says = {
    calm: 'Mild for most skins.',
    some: 'Cleans strongly; a little more superfat softens it.',
    marked: 'Strips the skin: lauric fats dominate and little fat is left free.',
  }[found];
  const reasons = [`short lathering acids ${pct(lauric)}`, `superfat ${pct(outlook.superfatPct)}`];
  return { id: 'drying', grade: found, says, reasons, leansOn: 'usual' };
}

function browning(outlook: Outlook): Judgement {
  let most = 0;
  const reasons: string[] = [];
  for (const { material, name } of outlook.loads) {
    const share = material.constituents?.find(({ id }) => id === 'vanillin')?.typicalPct ?? 0;
    if (share <= 0) continue;
    most = Math.max(most, share);
    reasons.push(`${name} holds ${pct(share)} vanillin`);
  }
  const found = grade(most, 0.1, 5);
  const says = {
    calm: 'Keeps its colour.',
    some: 'Turns cream to tan over the cure.',
    marked: 'Turns dark brown.',
  }[found];
  return { id: 'browning', grade: found, says, reasons, leansOn: 'figures' };
}

function staining(outlook: Outlook): Judgement {
  const colours = outlook.loads.filter(({ material, pctFats }) => material.behaviour?.stains && pctFats > 0);
  const most = Math.max(0, ...colours.map(({ pctFats }) => pctFats));
  const found = colours.length === 0 ? 'calm' : grade(most, 0.5, 2);
  const says = {
    calm: 'Lathers without colour.',
    some: 'May tint the lather and pale cloth.',
    marked: 'Colours the lather; stains cloth and tools.',
  }[found];
  return {
    id: 'staining',
    grade: found,
    says,
    reasons: colours.map(({ name, pctFats }) => `${name} ${pct(pctFats)}`),
    leansOn: 'usual',
  };
}

/** Grains above this, micrometres, are felt as scrub; sharp ones from a fifth of it. */
const FELT_UM = 500;

export const isFelt = ({
  material: { behaviour, kind },
  stage,
}: Pick<Outlook['loads'][number], 'material' | 'stage'>): boolean => {
  const largest = behaviour?.grainUm?.[1] ?? 0;
  if (stage === 'lye' || stage === 'top') return false;
  return behaviour?.sharp
    ? largest >= FELT_UM / 5
    : largest >= FELT_UM && (kind === 'exfoliant' || kind === 'salt');
};

const scrubs = (outlook: Outlook) => outlook.loads.filter(isFelt);

/** Hands bear grains that a body minds; a face bears none. */
const SCRATCH_BY_USE: Record<UsedOn, Record<Grade, Grade>> = {
  hands: { calm: 'calm', some: 'calm', marked: 'some' },
  body: { calm: 'calm', some: 'some', marked: 'marked' },
  face: { calm: 'calm', some: 'marked', marked: 'marked' },
};

function scratch(outlook: Outlook): Judgement {
  const found = scrubs(outlook);
  const sharp = found.filter(({ material }) => material.behaviour?.sharp);
  const usedOn = outlook.formula.usedOn ?? 'body';
  const felt: Grade = sharp.length > 0 ? 'marked' : found.length > 0 ? 'some' : 'calm';
  const at: Grade = SCRATCH_BY_USE[usedOn][felt];
  const says = {
    calm: 'Smooth.',
    some: 'A scrub for body and hands.',
    marked: 'Sharp grains: for hands and feet, not for faces.',
  }[felt];
  const reasons = found.map(
    ({ name, material }) =>
      `${name}, grains to ${((material.behaviour?.grainUm?.[1] ?? 0) / 1000).toFixed(1)} mm`,
  );
  if (felt !== 'calm') reasons.push(`meant for the ${usedOn}`);
  return { id: 'scratch', grade: at, says, reasons, leansOn: 'usual' };
}

function weeping(outlook: Outlook): Judgement {
  const drawing = outlook.loads.filter(
    ({ material, pctFats }) => material.behaviour?.drawsWater && pctFats > 0,
  );
  const salt = saltPct(outlook);
  const at: Grade = drawing.length > 0 ? 'marked' : salt >= 25 ? 'some' : 'calm';
  const says = {
    calm: 'Stays dry.',
    some: 'Salt draws some damp and crumbles if cut late: single moulds help.',
    marked: 'Salts that draw water: the bar weeps in damp air.',
  }[at];
  const reasons = drawing.map(({ name }) => name);
  return {
    id: 'weeping',
    grade: at,
    says,
    reasons: salt > 0 ? [...reasons, `salt ${pct(salt)}`] : reasons,
    leansOn: 'usual',
  };
}

function keeping(outlook: Outlook): Judgement {
  const soft = acidsPct(outlook, ['linoleic', 'linolenic']);
  const at = grade(soft + Math.max(0, outlook.superfatPct - 8), 15, 25);
  const says = {
    calm: 'Keeps well.',
    some: 'Keep it cool and dark; best within a year.',
    marked: 'Soft fats left free go rancid: orange spots may come early.',
  }[at];
  const reasons = [
    `linoleic and linolenic acid ${pct(soft)} of the fats`,
    `superfat ${pct(outlook.superfatPct)}`,
  ];
  return { id: 'keeping', grade: at, says, reasons, leansOn: 'figures' };
}

function face(outlook: Outlook): Judgement {
  const rated = fatLoads(outlook).filter(({ material }) => material.poreClogging !== undefined);
  const massG = rated.reduce((sum, load) => sum + load.massG, 0);
  const mean =
    massG > 0 ? rated.reduce((sum, load) => sum + load.massG * load.material.poreClogging!, 0) / massG : 0;
  const reasons = [`pore rating ${mean.toFixed(1)} of 5 over the fats`];
  const sharp = scrubs(outlook).filter(({ material }) => material.behaviour?.sharp);
  const cooling = outlook.loads.filter(({ material }) => material.concerns?.includes('cooling'));
  reasons.push(
    ...sharp.map(({ name }) => `${name} is sharp`),
    ...cooling.map(({ name }) => `${name} cools near the eyes`),
  );
  const found: Grade = sharp.length + cooling.length > 0 ? 'marked' : grade(mean, 2.4, 3.2);
  const usedOn = outlook.formula.usedOn ?? 'body';
  if (usedOn === 'face' && found !== 'calm') reasons.push('and it is meant for one');
  // What is meant for hands need not suit a face; what does not suit one is still said, so that nobody sells it so.
  const at: Grade = usedOn === 'hands' && found === 'some' ? 'calm' : found;
  const says = {
    calm: 'Nothing speaks against a face.',
    some: 'May clog some skins; informal ratings only.',
    marked: 'Not for the face.',
  }[at];
  return { id: 'face', grade: at, says, reasons, leansOn: 'usual' };
}

const hours = (count: number) =>
  count >= 48 ? `${Math.round(count / 24)} days` : `${Math.round(count)} hours`;

/** When to cut, by the one window that plan and rack go by too. */
function cutting({ formula, loads }: Outlook): Judgement {
  const window = cutWindow(formula, [...new Set(loads.map(({ material }) => material))]);
  const to = window.toHours ?? window.fromHours;
  const fast = setsFast(window);
  const says = fast
    ? 'Cut within one to four hours; later it crumbles.'
    : `Cut after ${hours(window.fromHours)} to ${hours(to)}.`;
  const at: Grade = fast ? 'marked' : window.fromHours >= LATE_HOURS ? 'some' : 'calm';
  return { id: 'cutting', grade: at, says, reasons: window.why, leansOn: 'usual' };
}

function fading(outlook: Outlook): Judgement {
  const turning = outlook.loads.filter(({ material }) =>
    /fades|browns|turns/.test(material.behaviour?.colour ?? ''),
  );
  const says =
    turning.length > 0
      ? 'Natural colour changes with lye, light and time.'
      : 'Nothing here is known to fade.';
  const reasons = turning.map(({ name, material }) => `${name}: ${material.behaviour!.colour}`);
  return { id: 'fading', grade: turning.length > 0 ? 'some' : 'calm', says, reasons, leansOn: 'usual' };
}

const JUDGES = [
  heat,
  speed,
  lather,
  drying,
  browning,
  staining,
  scratch,
  weeping,
  keeping,
  face,
  cutting,
  fading,
];

/** Every judgement on a formula, in the order a maker thinks of them. */
export function judgeOutlook(outlook: Outlook): Judgement[] {
  return JUDGES.map((judge) => judge(outlook));
}
