/** Which material on file a name in a spreadsheet most likely is. Pure. */
import type { Kind, Material } from '../formula/types';
import { rankWords, wordsOf } from '../search/rank';

export interface Match {
  name: string;
  id: string;
  title: string;
  kind: Kind;
  /** Grams a millilitre weighs; null where that is not on file. */
  gPerMl: number | null;
  /** Whether it stands out from all others; else it is asked about. */
  isSure: boolean;
}

/** Words that say how a material was made or bought, and nothing of which it is. */
const ASIDE = new Set(
  'organic bio refined unrefined virgin extra pure raw natural distilled deionised deionized filtered cold pressed fresh food grade cosmetic expeller rbd melted softened warm the of a and dest destilliert destilliertes distillee destilada distillata'.split(
    ' ',
  ),
);
const SHORT: Record<string, string> = {
  eo: 'oil',
  'e/o': 'oil',
  essential: '',
  oo: 'olive oil',
  co: 'coconut oil',
  aqua: 'water',
  h2o: 'water',
};

/** What common materials are called in German, French, Spanish and Italian, by one word each. */
const ABROAD: Record<string, string> = Object.fromEntries(
  [
    ['oil', 'ol oel huile aceite olio'],
    ['butter', 'beurre manteca burro'],
    ['wax', 'wachs cire cera'],
    ['clay', 'tonerde argile arcilla argilla'],
    ['water', 'wasser eau agua acqua'],
    ['olive', 'oliven oliva'],
    ['coconut', 'kokos kokosnuss coco cocco'],
    ['castor', 'rizinus ricin ricino'],
    ['rapeseed', 'raps colza'],
    ['sunflower', 'sonnenblumen tournesol girasol girasole'],
    ['almond', 'mandel amande almendra almendras mandorla mandorle'],
    ['sweet', 'suss douce dulce dulces dolci'],
    ['shea', 'karite'],
    ['cocoa', 'kakao cacao'],
    ['palm', 'palme palma'],
    ['lavender', 'lavendel lavande lavanda'],
    ['peppermint', 'pfefferminz pfefferminze menthe menta'],
    ['rice', 'reis riz arroz riso'],
    ['beeswax', 'bienen bienenwachs'],
    ['', 'atherisches essentielle esencial essenziale de du des del di d la le el'],
  ].flatMap(([english, words]) => words!.split(' ').map((word) => [word, english!])),
);
/** "Olivenöl" and "Mangobutter" are one word abroad. */
const COMPOUND = /(?<=\p{L}{4})(?:öl|oel|butter|wachs)\b/giu;

/** A name without what says nothing of the material. */
export function bareName(name: string): string[] {
  const outside = name
    .replace(/[([][^)\]]*[)\]]/g, ' ')
    .replace(COMPOUND, (end) => ` ${end}`)
    .replace(/[’']s\b/g, '')
    .replace(/\b\d+(?:[.,]\d+)?\s*(?:%|°|deg|degrees|mesh)?/g, ' ');
  return wordsOf(outside.replace(/\be\.\s?o\.?/gi, 'eo'))
    .flatMap((word) => wordsOf(SHORT[word] ?? word))
    .map((word) => ABROAD[word] ?? word)
    .filter((word) => word !== '' && !ASIDE.has(word));
}

/** Words that are said or left out as it comes; a name that lacks them costs a little. */
const LOOSE = new Set(['oil', 'butter', 'clay', 'powder', 'wax']);
const LOOSE_COST = 0.02;

/** Words that say what kind of thing it is: "rose clay" is no rose oil. */
const KIND_WORDS: Partial<Record<string, readonly Kind[]>> = {
  clay: ['clay'],
  wax: ['wax'],
  milk: ['milk'],
  salt: ['salt'],
  butter: ['fat'],
  oil: ['fat', 'wax', 'essentialOil', 'fragrance', 'isolate'],
};

const SURE = 0.95;
const LEAD = 0.02;
/** Below this it is another material. */
const LEAST = 0.3;

interface Named {
  material: Material;
  named: string[];
  said: string[];
}

/** Materials with their names split into words, to be asked for many names. */
export function namedMaterials(materials: readonly Material[]): Named[] {
  return materials.map((material) => ({
    material,
    named: bareName(material.name),
    said: wordsOf((material.inci ?? []).map((part) => part.name).join(' ')),
  }));
}

/**
 * The material that answers best to a name; null where none does. Words it has beyond the name count against it.
 *
 * @example
 * matchName('olive oil', namedMaterials(cupboard))?.id; // 'olive'
 */
export function matchName(name: string, materials: readonly Named[]): Match | null {
  const typed = bareName(name);
  if (typed.length === 0) return null;
  const firm = typed.filter((word) => !LOOSE.has(word));
  const isOtherKind = ({ material, named }: Named) =>
    typed.some((word) => {
      const kinds = KIND_WORDS[word];
      return kinds !== undefined && !kinds.includes(material.kind) && !named.includes(word);
    });
  const scored = materials
    .filter((one) => !isOtherKind(one))
    .map(({ material, named, said }) => {
      const value = Math.max(rankWords(typed, named, said), rankWords(firm, named, said) - LOOSE_COST);
      if (value <= LEAST) return { material, value: 0 };
      const beyond = named.filter(
        (word) => !typed.some((one) => word.startsWith(one) || one.startsWith(word)),
      );
      // "Oil" and "butter" are left out as often as not.
      const weight = LOOSE.has(named.at(-1)!) ? 0.03 : 0.1;
      return { material, value: value - weight * beyond.length };
    })
    .filter(({ value }) => value > LEAST)
    .sort((a, b) => b.value - a.value || a.material.name.length - b.material.name.length);
  const [first, second] = scored;
  if (!first) return null;
  const { id, name: title, kind, density, bulkDensity } = first.material;
  const isSure = first.value >= SURE && first.value - (second?.value ?? 0) >= LEAD;
  return { name, id, title, kind, gPerMl: density ?? bulkDensity ?? null, isSure };
}
