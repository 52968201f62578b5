/** The usual cautions, proposed from what is in the bar, in every language of labels. */
import type { TraitMaterial } from '../formula/traits';
import type { Words } from './content';
import { LABEL_LANGUAGES, LABEL_WORDS, type UsualCaution } from './languages';

interface Proposal {
  id: UsualCaution;
  applies: (materials: readonly TraitMaterial[]) => boolean;
}

const has = (concern: string) => (materials: readonly TraitMaterial[]) =>
  materials.some(({ concerns }) => concerns?.includes(concern as never));

const PROPOSALS: readonly Proposal[] = [
  {
    id: 'eyes',
    applies: () => true,
  },
  {
    id: 'grains',
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.sharp === true),
  },
  {
    id: 'cooling',
    applies: has('cooling'),
  },
  {
    id: 'children',
    // What cools says it already.
    applies: (materials) => has('children')(materials) && !has('cooling')(materials),
  },
  {
    id: 'sun',
    applies: has('sun'),
  },
  {
    id: 'nuts',
    applies: (materials) => materials.some(({ foods }) => foods?.includes('nut') === true),
  },
  {
    id: 'staining',
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.stains === true),
  },
  {
    id: 'pregnancy',
    applies: has('pregnancy'),
  },
];

/**
 * The cautions that fit a formula's materials, joined in each language.
 *
 * @example
 * proposeCautions(materials).en; // what to say of eyes, skin and children
 */
export function proposeCautions(materials: readonly TraitMaterial[]): Required<Words> {
  const fitting = PROPOSALS.filter(({ applies }) => applies(materials));
  const join = (usual: Record<UsualCaution, string>) => fitting.map(({ id }) => usual[id]).join(' ');
  return Object.fromEntries(
    LABEL_LANGUAGES.map((language) => [language, join(LABEL_WORDS[language].usual)]),
  ) as Required<Words>;
}
