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
  'organic bio nativ natives raffiniert kaltgepresst desodoriert vierge vergine sustainable rspo fairtrade refined unrefined virgin extra pure raw natural french brazilian distilled deionised deionized filtered cold pressed fresh food grade cosmetic expeller rbd melted softened warm the of a and dest destilliert destilliertes distillee destilada distillata gedestilleerd gedemineraliseerd demineralisee demineralisiertes demineralizzata desmineralizada'.split(
    ' ',
  ),
);
const SHORT: Record<string, string> = {
  eo: 'oil',
  'e/o': 'oil',
  essential: '',
  he: '',
  oo: 'olive oil',
  evoo: 'olive oil',
  co: 'coconut oil',
  aqua: 'water',
  h2o: 'water',
};

/** What common materials are called in German, Dutch, French, Spanish and Italian, word by word. */
const ABROAD: Record<string, string> = Object.fromEntries(
  [
    ['oil', 'ol oel olie fett huile aceite olio olej'],
    ['butter', 'boter beurre manteca burro'],
    ['wax', 'wachs cire cera'],
    ['clay', 'tonerde argile arcilla argilla'],
    ['water', 'wasser eau agua acqua demiwater woda'],
    ['olive', 'oliven olijf oliva oliwa'],
    ['coconut', 'kokos kokosnuss coco cocco kokosowy'],
    ['castor', 'rizinus ricin ricino rycynowy'],
    ['rapeseed', 'raps colza koolzaad rzepakowy'],
    ['sunflower', 'sonnenblumen tournesol girasol girasole zonnebloem slonecznikowy słonecznikowy'],
    ['almond', 'mandel amande almendra almendras mandorla mandorle'],
    ['sweet', 'suss douce dulce dulces dolci'],
    ['shea', 'karite'],
    ['cocoa', 'kakao cacao'],
    ['palm', 'palme palma'],
    ['lavender', 'lavendel lavande lavanda'],
    ['peppermint', 'pfefferminz pfefferminze menthe menta'],
    ['rice', 'reis riz arroz riso'],
    ['ground', 'gemahlen moulu macinato'],
    ['rosemary', 'rosmarin romarin rosmarino romero'],
    ['lemon', 'zitrone zitronen citron limone limon'],
    ['cinnamon', 'zimt cannelle cannella canela'],
    ['coffee', 'kaffee cafe caffe'],
    ['honey', 'honig miel miele'],
    ['milk', 'milch lait latte leche'],
    ['goat', 'ziegen chevre capra cabra'],
    ['oat', 'hafer avoine avena'],
    ['salt', 'salz sel sale'],
    ['sea', 'meer mer mare mar'],
    ['charcoal', 'aktivkohle charbon carbone'],
    ['tea tree', 'teebaum'],
    ['tallow', 'talg rindertalg suif sego sebo'],
    ['beeswax', 'bienen bienenwachs'],
    ['', 'ath atherisches essentielle esencial essenziale z oliwek de du des del di d la le el'],
  ].flatMap(([english, words]) => words!.split(' ').map((word) => [word, english!])),
);
/** "Olivenöl", "Meersalz" and "Mangobutter" are one word abroad. */
const COMPOUND = /(?<=\p{L}{4})(?:öl|oel|olie|fett|butter|boter|wachs|salz|milch)\b/giu;

/** A name without what says nothing of the material. */
export function bareName(name: string): string[] {
  const outside = name
    .replace(/[([][^)\]]*[)\]]/g, ' ')
    .replace(COMPOUND, (end) => ` ${end}`)
    .replace(/[’']s\b/g, '')
    .replace(/\b\d+(?:[.,]\d+)?\s*(?:%|°|deg|degrees|mesh)?/g, ' ');
  return wordsOf(outside.replace(/\be\.\s?o\.?/gi, 'eo'))
    .flatMap((word) => wordsOf(SHORT[word] ?? word))
    .flatMap((word) => (ABROAD[word] ?? word).split(' '))
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

/** What is most likely meant by a name that says less than any on file; it is asked about all the same. */
const USUAL: Partial<Record<string, string>> = { salt: 'sea salt fine', 'table salt': 'sea salt fine' };

/** Initials may mean several things. */
const MOST_INITIALS = 4;
const SURE = 0.95;
const LEAD = 0.02;
/** A word that stands in both names as it is. */
const SAID = 0.001;
/** Below this it is another material. */
const LEAST = 0.3;

interface Named {
  material: Material;
  /** Every word of its name. */
  whole: string[];
  named: string[];
  said: string[];
  /** What else it is called, each as its words. */
  called: string[];
}

/** Materials with their names split into words, to be asked for many names. */
export function namedMaterials(
  materials: readonly (Material & { alsoNamed?: readonly string[] })[],
): Named[] {
  return materials.map((material) => ({
    material,
    whole: wordsOf(material.name),
    named: bareName(material.name),
    said: wordsOf((material.inci ?? []).map((part) => part.name).join(' ')),
    called: (material.alsoNamed ?? []).map((one) => wordsOf(one).join(' ')),
  }));
}

/**
 * The material that answers best to a name; null where none does. Words it has beyond the name count against it.
 *
 * @example
 * matchName('olive oil', namedMaterials(cupboard))?.id; // 'olive'
 */
export function matchName(name: string, materials: readonly Named[]): Match | null {
  const whole = wordsOf(name);
  const asked = whole.join(' ');
  const other = materials.filter(({ called }) => called.includes(asked));
  // A name that one material alone is called by besides; of two or three letters it is asked about.
  if (other.length === 1) {
    const { id, name: title, kind, density, bulkDensity } = other[0]!.material;
    const isSure = whole.join('').length > MOST_INITIALS;
    return { name, id, title, kind, gPerMl: density ?? bulkDensity ?? null, isSure };
  }
  const bare = bareName(name);
  const usual = USUAL[bare.join(' ')];
  const typed = usual ? wordsOf(usual) : bare;
  if (typed.length === 0) return null;
  const firm = typed.filter((word) => !LOOSE.has(word));
  // "FO" and "EO" say a kind of thing; what begins with the same letters is none of it.
  if (typed.every((word) => /^[a-z]{1,2}$/.test(word) || word === 'oil')) return null;
  const isOtherKind = ({ material, named }: Named) =>
    typed.some((word) => {
      const kinds = KIND_WORDS[word];
      return kinds !== undefined && !kinds.includes(material.kind) && !named.includes(word);
    });
  const scored = materials
    .filter((one) => !isOtherKind(one))
    .map(({ material, whole: own, named, said }) => {
      const value = Math.max(rankWords(typed, named, said), rankWords(firm, named, said) - LOOSE_COST);
      if (value <= LEAST) return { material, isWhole: false, isSame: false, value: 0 };
      const beyond = named.filter(
        (word) => !typed.some((one) => word.startsWith(one) || one.startsWith(word)),
      );
      // "Oil" and "butter" are left out as often as not.
      const weight = LOOSE.has(named.at(-1)!) ? 0.03 : 0.1;
      // "Bay" may be bay laurel or another bay.
      const isWhole = beyond.every((word) => LOOSE.has(word));
      const isSame = own.join(' ') === asked;
      // Of two that are made otherwise, cold pressed or distilled, the one that is said.
      const alike = own.filter((word) => whole.includes(word)).length;
      return { material, isWhole, isSame, value: value - weight * beyond.length + SAID * alike };
    })
    .filter(({ value }) => value > LEAST)
    .sort(
      (a, b) =>
        Number(b.isSame) - Number(a.isSame) ||
        b.value - a.value ||
        a.material.name.length - b.material.name.length,
    );
  const [first, second] = scored;
  if (!first) return null;
  const { id, name: title, kind, density, bulkDensity } = first.material;
  const stands = first.isWhole && first.value >= SURE && first.value - (second?.value ?? 0) >= LEAD;
  const isSure = first.isSame || (!usual && stands);
  return { name, id, title, kind, gPerMl: density ?? bulkDensity ?? null, isSure };
}
