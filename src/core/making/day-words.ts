/** What the run sheet says: plain words that somebody who never made soap can follow. */
import type { Load } from './roles';
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
    'Burns skin and eyes. Goggles and gloves on. If it touches skin, rinse with plenty of water at once.',
  fumes: 'Hot, and it steams: keep your face away, air the room.',
  never: 'Alkali into liquid, never liquid onto alkali.',
  aluminium: 'No aluminium anywhere: lye eats it.',
  hot: 'Hot fat burns. Do not leave it alone.',
  batter: 'Fresh batter still burns like lye. Gloves and goggles stay on.',
  scent: 'Keep it off skin and eyes. No plastic: some scents melt it.',
} as const;

/** Grams as they are read off a scale. */
export function gramsSaid(massG: number): string {
  return `${massG < 50 ? massG.toFixed(1) : String(Math.round(massG))} g`;
}

interface Words {
  title: string;
  how: string;
  why: string;
  cautions: string[];
}

const onScale = (vessel: string, name: string, massG: number) =>
  `Put a ${vessel} on the scale and press zero. Add ${name} slowly until it shows ${gramsSaid(massG)}.`;

/** Why it goes in where it does; the alkali has a step of its own. */
const WHY: Record<Load['role'], string> = {
  alkali: '',
  liquid: 'The liquid carries the lye. Cold or frozen liquid keeps it from getting too hot.',
  dissolved: 'Dissolved now, it spreads evenly; once the lye is in, it may clump or scorch.',
  lactate: 'It makes the bar easier to unmould. In hot lye it is lost.',
  hardFat: 'Solid fats and waxes need heat, so they are melted first.',
  softFat: 'Liquid oils go in last: they cool the pot down.',
  intoFats: 'Stirred into the fats now, it has no chance to make lumps later.',
  held: 'It was kept back from the lye and counts as liquid.',
  trace: 'In the batter it spreads before it sets.',
  scent: 'The limits count to the gram. Too early, the lye spoils it.',
  salt: 'Salt goes in last: it thickens the batter at once.',
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
  lactate: 'Stir it into the cooled lye.',
  intoFats: 'Stir it into the fats until no speck is left.',
  held: 'Stir it into the batter.',
  trace: 'Stir it into the batter.',
  scent: 'Stir it in by hand, slowly, until the colour is even.',
  salt: 'Stir it through quickly and pour at once.',
  afterCook: 'Stir it in well.',
  top: 'Scatter it over the top and press it in lightly.',
};

const VESSELS: Record<Load['role'], string> = {
  alkali: VESSEL.alkali,
  liquid: VESSEL.lye,
  hardFat: VESSEL.fats,
  softFat: VESSEL.fats,
  dissolved: VESSEL.small,
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

/** Words for weighing one load and putting it where it belongs. */
export function weighWords(load: Load, massG: number, portion: string | null): Words {
  const { role, material } = load;
  const { name } = material;
  const whole = portion === null ? '' : ` Only into the part called “${portion}”.`;
  const vessel = vesselOf(load);
  const isPot = role === 'hardFat' || role === 'softFat' || role === 'liquid';
  const put = isPot
    ? `Put the ${vessel} on the scale and press zero. Pour in ${name} slowly until it shows ${gramsSaid(massG)}: it splashes.`
    : onScale(vessel, name, massG);
  const frozen = material.kind === 'milk' ? ' Frozen or ice cold, so that the lye does not scorch it.' : '';
  const cautions: string[] = [];
  if (isScent(material)) cautions.push(CAUTION.scent);
  if (role === 'scent' || role === 'trace' || role === 'salt' || role === 'afterCook')
    cautions.push(CAUTION.batter);
  return {
    title: portion === null ? name : `${name}, into ${portion}`,
    how: `${put}${frozen} ${WHERE[role]}`.trim() + whole,
    why: WHY[role],
    cautions,
  };
}
