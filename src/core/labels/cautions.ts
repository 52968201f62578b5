/** The usual cautions, proposed from what is in the bar, in English and French. */
import type { TraitMaterial } from '../formula/traits';
import type { Words } from './content';

interface Proposal {
  id: string;
  words: Required<Words>;
  applies: (materials: readonly TraitMaterial[]) => boolean;
}

const has = (concern: string) => (materials: readonly TraitMaterial[]) =>
  materials.some(({ concerns }) => concerns?.includes(concern as never));

const PROPOSALS: readonly Proposal[] = [
  {
    id: 'eyes',
    words: {
      en: 'Avoid contact with eyes; rinse well if it happens.',
      fr: 'Éviter le contact avec les yeux ; rincer abondamment le cas échéant.',
    },
    applies: () => true,
  },
  {
    id: 'grains',
    words: {
      en: 'Scrubs: not for the face or broken skin.',
      fr: 'Gommant : ne pas utiliser sur le visage ni sur une peau lésée.',
    },
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.sharp === true),
  },
  {
    id: 'cooling',
    words: {
      en: 'Cools: not for small children.',
      fr: 'Effet frais : ne pas utiliser chez les jeunes enfants.',
    },
    applies: has('cooling'),
  },
  {
    id: 'staining',
    words: { en: 'May stain pale cloth.', fr: 'Peut tacher les tissus clairs.' },
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.stains === true),
  },
  {
    id: 'pregnancy',
    words: {
      en: 'In pregnancy ask a doctor or midwife first.',
      fr: 'En cas de grossesse, demander d’abord l’avis d’un médecin ou d’une sage-femme.',
    },
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
  const join = (language: 'en' | 'fr') => fitting.map(({ words }) => words[language]).join(' ');
  return { en: join('en'), fr: join('fr') };
}
