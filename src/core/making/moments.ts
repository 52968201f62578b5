/** When a caution of a material bites: there it is shown, and not only in the cupboard. */

/** At the choice, at the liquid, with the lye, in the pot, at rest, on the label. */
export const MOMENTS = ['choice', 'liquid', 'lye', 'pot', 'rest', 'label'] as const;
export type Moment = (typeof MOMENTS)[number];

export const MOMENT_WORDS: Record<Moment, string> = {
  choice: 'when it is chosen',
  liquid: 'before the liquid is weighed',
  lye: 'with the lye',
  pot: 'as it goes into the pot',
  rest: 'at rest and in the cure',
  label: 'on the label',
};

/** By the words of a caution; the first that fits. What fits none bites as soon as the material is handled. */
const BITES: readonly (readonly [RegExp, readonly Moment[]])[] = [
  [/^Boil /, ['choice', 'liquid']],
  [
    /^(?:Takes up lye|Its acid eats lye|Its acids take up lye|For bars alone|Loses its colour in acid)/,
    ['choice', 'lye'],
  ],
  [/^Burns skin|^In air it loses strength/, ['lye']],
  [/^Not steady in lye|in lye: try/, ['choice', 'pot']],
  [
    /^Do not breathe|^Of animal origin\. Temper|^Fresh pulp|^Irritates (?:some|eyes)|^Stains/,
    ['choice', 'pot'],
  ],
  [/speeds the batter|^Speeds/i, ['choice', 'pot']],
  [
    /^Draws water|^Its salts draw|weeps|^Turns the bar|^Browns|^Deep blue|^Slows rancidity/,
    ['choice', 'rest'],
  ],
  [
    /^(?:From an insect|From bees|From nuts|From wheat|Of animal origin: not vegan|A bought base|Many powders hold)/,
    ['choice', 'label'],
  ],
  [
    /small children|children under three|^Cooling|burn in the sun|skin to the sun|see the sun|not a scent for a face/,
    ['choice', 'label'],
  ],
  [/^An old bottle/, ['choice', 'pot']],
  [
    /[Aa]sk the supplier|[Aa]sk for the (?:paper|colour index)|^Limited in soap|^Mostly coumarin|^Words on what|^Ask|classification|opinion|limited|^Not to be used|not to be used|law lets|methyl|^Folded|sensitiser|^Irritates skin/,
    ['choice'],
  ],
];

/**
 * The moments at which a caution bites, the first of them first.
 *
 * @example momentsOf('Do not breathe the dust.') // ['choice', 'pot']
 */
export function momentsOf(caution: string): readonly Moment[] {
  return BITES.find(([words]) => words.test(caution))?.[1] ?? ['choice', 'pot'];
}

/** Whether the words of a caution are known by a rule, and not by what is left. */
export const isPlaced = (caution: string): boolean => BITES.some(([words]) => words.test(caution));

/** Cautions of a material that bite at a moment. */
export const cautionsAt = (cautions: readonly string[] | undefined, moment: Moment): string[] =>
  (cautions ?? []).filter((one) => momentsOf(one).includes(moment));
