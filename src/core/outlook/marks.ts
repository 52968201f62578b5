/** What the outlook minds, at the line that causes it: a few words each, grave ones told apart. Advice, never a verdict. */
import { cautionsAt } from '../making/moments';
import { isUnknown, type Concern, type TraitMaterial } from '../formula/traits';
import type { Line, UsedOn } from '../formula/types';
import { isFelt } from './judge';

export interface LineMark {
  words: string;
  /** Why, in a sentence. */
  why: string;
  isGrave: boolean;
}

const CONCERN_MARKS: Partial<Record<Concern, Omit<LineMark, 'isGrave'>>> = {
  sun: {
    words: 'sun',
    why: 'It sensitises skin to the sun where it is left on; rinsed off, still take care.',
  },
  pregnancy: { words: 'pregnancy', why: 'Caution in pregnancy: a doctor or midwife is asked.' },
  children: { words: 'children', why: 'Caution for small children.' },
};

/** From so much of the fats on, percent, a colour stains cloth, and an exceeding one grave. */
const STAINS_PCT = { some: 0.5, grave: 2 };
/** So much vanillin in a scent turns a bar dark brown, percent. */
const BROWNS_PCT = 5;

/** What other marks say already. */
const SAID_ELSEWHERE =
  /speeds the batter|^Do not breathe|^Speeds|^Browns|^Turns the bar|to the sun|in the sun|^Stains|small children|weeps/;

const sharpWhy = (usedOn: UsedOn) =>
  usedOn === 'face' ? 'Sharp grains, and the bar is meant for a face.' : 'Sharp grains: not for faces.';

/**
 * Marks of one line. `old` says what age does to the bottle that would be taken; null where nothing.
 *
 * @example
 * lineMarks(line, rosePetals, { pctFats: 1, usedOn: 'body', old: null }); // []
 */
export function lineMarks(
  { stage }: Pick<Line, 'stage'>,
  material: TraitMaterial,
  { pctFats, usedOn, old }: { pctFats: number; usedOn: UsedOn; old: string | null },
): LineMark[] {
  if (pctFats <= 0) return [];
  const { behaviour, concerns = [], constituents } = material;
  const marks: LineMark[] = [];
  const mark = (words: string, why: string, isGrave = false) => marks.push({ words, why, isGrave });
  if (behaviour?.rices)
    mark('rices', 'The batter breaks into grains and oil: stir it in last, by hand.', true);
  if (behaviour?.speeds) mark('hurries', 'It speeds the batter: have everything ready.');
  if (isUnknown(material))
    mark('behaviour not known', 'How it behaves in batter was never said: try a little first.');
  if (old !== null) mark('old', old, true);
  if (behaviour?.sharp && isFelt({ material, stage })) mark('scratches', sharpWhy(usedOn), usedOn === 'face');
  if (behaviour?.swells)
    mark('swells', 'It swells in water: wet it well before it goes in, and take less of it.');
  if (behaviour?.stains && pctFats >= STAINS_PCT.some)
    mark('stains', 'It colours lather, cloth and tools.', pctFats >= STAINS_PCT.grave);
  if (behaviour?.drawsWater) mark('weeps', 'It draws damp from the air: the bar weeps.', true);
  const vanillin = constituents?.find(({ id }) => id === 'vanillin')?.typicalPct ?? 0;
  if (vanillin >= BROWNS_PCT) mark('browns', 'So much vanillin turns the bar dark brown.');
  const minds = cautionsAt(material.cautions, 'choice').filter((one) => !SAID_ELSEWHERE.test(one));
  if (minds.length > 0) mark('mind', minds.join(' '));
  for (const concern of concerns) {
    const found = CONCERN_MARKS[concern];
    if (found) marks.push({ ...found, isGrave: false });
  }
  return marks.sort((a, b) => Number(b.isGrave) - Number(a.isGrave));
}
