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
      fr: 'Éviter le contact avec les yeux. En cas de contact, rincer abondamment à l’eau.',
      de: 'Kontakt mit den Augen vermeiden. Bei Augenkontakt gründlich mit Wasser ausspülen.',
      es: 'Evitar el contacto con los ojos. En caso de contacto, aclarar con abundante agua.',
    },
    applies: () => true,
  },
  {
    id: 'grains',
    words: {
      en: 'Scrubs: not for the face or broken skin.',
      fr: 'Gommant : ne pas utiliser sur le visage ni sur une peau lésée.',
      de: 'Peelingeffekt: nicht im Gesicht und nicht auf verletzter Haut anwenden.',
      es: 'Efecto exfoliante: no usar en la cara ni sobre piel dañada.',
    },
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.sharp === true),
  },
  {
    id: 'cooling',
    words: {
      en: 'Cools: not for small children.',
      fr: 'Effet rafraîchissant : ne pas utiliser chez les jeunes enfants.',
      de: 'Kühlender Effekt: nicht bei Kleinkindern anwenden.',
      es: 'Efecto refrescante: no usar en niños pequeños.',
    },
    applies: has('cooling'),
  },
  {
    id: 'children',
    words: {
      en: 'Not for small children.',
      fr: 'Ne pas utiliser chez les jeunes enfants.',
      de: 'Nicht bei Kleinkindern anwenden.',
      es: 'No usar en niños pequeños.',
    },
    // What cools says it already.
    applies: (materials) => has('children')(materials) && !has('cooling')(materials),
  },
  {
    id: 'sun',
    words: {
      en: 'Rinse off well before strong sun.',
      fr: 'Bien rincer avant une exposition au soleil.',
      de: 'Vor starker Sonne gut abspülen.',
      es: 'Aclarar bien antes de exponerse al sol.',
    },
    applies: has('sun'),
  },
  {
    id: 'nuts',
    words: {
      en: 'Made with nuts.',
      fr: 'Contient des fruits à coque.',
      de: 'Enthält Schalenfrüchte.',
      es: 'Contiene frutos de cáscara.',
    },
    applies: (materials) => materials.some(({ foods }) => foods?.includes('nut') === true),
  },
  {
    id: 'staining',
    words: {
      en: 'May stain pale cloth.',
      fr: 'Peut tacher les tissus clairs.',
      de: 'Kann helle Textilien verfärben.',
      es: 'Puede manchar tejidos claros.',
    },
    applies: (materials) => materials.some(({ behaviour }) => behaviour?.stains === true),
  },
  {
    id: 'pregnancy',
    words: {
      en: 'In pregnancy ask a doctor or midwife first.',
      fr: 'En cas de grossesse, demander d’abord l’avis d’un médecin ou d’une sage-femme.',
      de: 'In der Schwangerschaft vor der Anwendung ärztlichen Rat oder den Rat einer Hebamme einholen.',
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
