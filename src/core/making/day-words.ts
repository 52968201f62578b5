/** What the run sheet says: plain words that somebody who never made soap can follow. */
import { cautionsAt, type Moment } from './moments';
import { sugarShare, type Load } from './roles';
import type { Weights } from '../quantities/say';
import { spoonWords, weightSaid } from './spoons';
import { isScent } from '../formula/scents';

export const VESSEL = {
  alkali: 'dry plastic cup',
  lye: 'steel jug',
  fats: 'steel pot',
  scent: 'glass beaker',
  small: 'small glass bowl',
} as const;

export const CAUTION = {
  alkali:
    'Burns skin and eyes. Goggles and gloves on. On skin: plenty of water at once. In the eyes: running water for 15 minutes, then a doctor.',
  fumes: 'Hot, and it steams: keep your face away, air the room.',
  never: 'Alkali into liquid, never liquid onto alkali.',
  aluminium: 'No aluminium anywhere: lye eats it.',
  hot: 'Hot fat burns. Do not leave it alone.',
  batter: 'Fresh batter still burns like lye. Gloves and goggles stay on.',
  scent: 'Keep it off skin and eyes. No plastic: some scents melt it.',
} as const;

/** Cautions of the day itself, whatever is in the bar. */
export const OF_THE_DAY: ReadonlySet<string> = new Set(Object.values(CAUTION));

interface Words {
  title: string;
  how: string;
  why: string;
  cautions: string[];
}

const onScale = (vessel: string, name: string, weight: string) =>
  `Put a ${vessel} on the scale and press zero. Add ${name} slowly until it shows ${weight}.`;

/** Why it goes in where it does; the alkali has a step of its own. */
const WHY: Record<Load['role'], string> = {
  alkali: '',
  liquid: 'The liquid carries the lye. Cold or frozen liquid keeps it from getting too hot.',
  dissolved: 'Dissolved now, it spreads evenly; once the lye is in, it may clump or scorch.',
  fibre: 'Only hot lye takes it apart; in plain liquid it never comes undone.',
  lactate: 'It makes the bar easier to unmould. In hot lye it is lost.',
  hardFat: 'Solid fats and waxes need heat, so they are melted first.',
  softFat: 'Liquid oils go in last: they cool the pot down.',
  intoFats: 'Stirred into the fats now, it has no chance to make lumps later.',
  held: 'It was kept back from the lye and counts as liquid.',
  trace: 'In the batter it spreads before it sets.',
  scent: 'The limits count to the gram. Too early, the lye spoils it.',
  salt: 'Salt goes in last: it thickens the batter at once. In thin batter it sinks.',
  afterCook: 'After the cook the lye is used up, so it stays as it is.',
  top: 'Laid on top, it stays where it is seen.',
};

/** What is done with it once it is weighed; nothing of what is weighed into its vessel. */
const WHERE: Record<Load['role'], string> = {
  liquid: '',
  alkali: '',
  hardFat: '',
  softFat: '',
  dissolved: 'Stir it into the liquid until nothing is left on the bottom.',
  fibre: 'Pull it apart and push it under; it comes undone in the heat of the lye, not before.',
  lactate: 'Stir it into the cooled lye.',
  intoFats: 'Stir it into the fats until no speck is left.',
  held: 'Stir it into the batter.',
  trace: 'Stir it into the batter.',
  scent: 'Stir it in by hand, slowly, until the colour is even.',
  salt: 'Wait until the batter is thick enough to hold it: a spoonful of salt must not sink. Then stir it through quickly and pour at once.',
  afterCook: 'Stir it in well.',
  top: 'Scatter it over the top and press it in lightly.',
};

const VESSELS: Record<Load['role'], string> = {
  alkali: VESSEL.alkali,
  liquid: VESSEL.lye,
  hardFat: VESSEL.fats,
  softFat: VESSEL.fats,
  dissolved: VESSEL.small,
  fibre: VESSEL.small,
  lactate: VESSEL.small,
  intoFats: VESSEL.small,
  held: VESSEL.small,
  trace: VESSEL.small,
  scent: VESSEL.small,
  salt: VESSEL.small,
  afterCook: VESSEL.small,
  top: VESSEL.small,
};

/** What a load is weighed in. */
export const vesselOf = ({ material, role }: Load): string =>
  isScent(material) ? VESSEL.scent : VESSELS[role];

/** Honey and syrups go into the batter thin, so that they do not sit in it as drops. */
const isSyrup = ({ kind, waterPct }: Load['material']) => kind === 'sugar' && (waterPct ?? 0) > 5;

/** A milky or a sugary liquid scorches in the heat of the lye. */
const wantsCold = ({ kind, ...material }: Load['material']) =>
  kind === 'milk' || (kind === 'liquid' && sugarShare({ kind, ...material }) > 0);

const COLD = ' Frozen or ice cold, so that the lye does not scorch it.';
const THIN = 'Thin it with as much warm water, taken off the liquid, and stir it into the batter.';

/** When cautions bite that are shown where a load of a role is weighed. */
const MOMENT_OF: Partial<Record<Load['role'], Moment>> = {
  liquid: 'liquid',
  dissolved: 'lye',
  fibre: 'lye',
  alkali: 'lye',
};

/** How a load is brought onto the scale: liquids are poured, what is solid is put in, what is spooned is counted. */
function putWords(load: Load, massG: number, vessel: string, weights: Weights): string {
  const { role, material } = load;
  const weight = weightSaid(massG, weights);
  const spooned = spoonWords(load, massG, weights);
  if (spooned) return spooned;
  if (role === 'softFat' || role === 'liquid')
    return `Put the ${vessel} on the scale and press zero. Pour in ${material.name} slowly until it shows ${weight}: it splashes.`;
  if (role === 'hardFat')
    return `Put the ${vessel} on the scale and press zero. Put in ${material.name} until it shows ${weight}.`;
  return onScale(vessel, material.name, weight);
}

/** Words for weighing one load and putting it where it belongs. */
export function weighWords(
  load: Load,
  massG: number,
  { portion, weights }: { portion: string | null; weights: Weights },
): Words {
  const { role, material } = load;
  const { name } = material;
  const whole = portion === null ? '' : ` Only into the part called “${portion}”.`;
  const vessel = vesselOf(load);
  const cold = role === 'liquid' && wantsCold(material) ? COLD : '';
  const where = isSyrup(material) && role === 'trace' ? THIN : WHERE[role];
  const cautions: string[] = [];
  if (isScent(material)) cautions.push(CAUTION.scent);
  if (role === 'scent' || role === 'trace' || role === 'salt' || role === 'afterCook')
    cautions.push(CAUTION.batter);
  cautions.push(...cautionsAt(material.cautions, MOMENT_OF[role] ?? 'pot'));
  return {
    title: portion === null ? name : `${name}, into ${portion}`,
    how: `${putWords(load, massG, vessel, weights)}${cold} ${where}`.trim() + whole,
    why: WHY[role],
    cautions: [...new Set(cautions)],
  };
}
