/** The usual cautions, proposed from what is in the bar, in every language of labels. */
import type { TraitMaterial } from '../formula/traits';
import type { Language } from '../claims/types';
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
      de: 'Kontakt mit den Augen vermeiden; falls es geschieht, gut ausspülen.',
      es: 'Evitar el contacto con los ojos; si ocurre, aclarar bien.',
    },
    applies: () => true,
  },
  {
    id: 'grains',
    words: {
      en: 'Scrubs: not for the face or broken skin.',
      fr: 'Gommant : ne pas utiliser sur le visage ni sur une peau lésée.',
      de: 'Reibt: nicht im Gesicht oder auf verletzter Haut anwenden.',
      es: 'Exfolia: no usar en la cara ni sobre piel dañada.',
    },
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.sharp === true),
  },
  {
    id: 'cooling',
    words: {
      en: 'Cools: not for small children.',
      fr: 'Effet frais : ne pas utiliser chez les jeunes enfants.',
      de: 'Kühlt: nicht für kleine Kinder.',
      es: 'Refresca: no usar en niños pequeños.',
    },
    applies: has('cooling'),
  },
  {
    id: 'staining',
    words: {
      en: 'May stain pale cloth.',
      fr: 'Peut tacher les tissus clairs.',
      de: 'Kann helle Stoffe verfärben.',
      es: 'Puede manchar telas claras.',
    },
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.stains === true),
  },
  {
    id: 'pregnancy',
    words: {
      en: 'In pregnancy ask a doctor or midwife first.',
      fr: 'En cas de grossesse, demander d’abord l’avis d’un médecin ou d’une sage-femme.',
      de: 'In der Schwangerschaft zuerst Arzt oder Hebamme fragen.',
      es: 'En el embarazo, consultar antes con un médico o una matrona.',
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
  const join = (language: Language) => fitting.map(({ words }) => words[language]).join(' ');
  return { en: join('en'), fr: join('fr'), de: join('de'), es: join('es') };
}
