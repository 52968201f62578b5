/** Which language a page is in, by the little words that every text of it has, also where they were read badly. Pure. */

/** Languages whose letters the reader of pictures knows, by the codes it has for them. */
export const PAGE_LANGUAGES = ['eng', 'deu', 'fra', 'ita', 'spa', 'nld', 'pol'] as const;
export type PageLanguage = (typeof PAGE_LANGUAGES)[number];

export const PAGE_LANGUAGE_NAMES: Record<PageLanguage, string> = {
  eng: 'English',
  deu: 'German',
  fra: 'French',
  ita: 'Italian',
  spa: 'Spanish',
  nld: 'Dutch',
  pol: 'Polish',
};

/** Words of a language that papers use and that the others do not write so. */
const WORDS: Record<PageLanguage, readonly string[]> = {
  eng: 'the of and for with this that is are date name number maximum level category product issue from by not supplier certificate'.split(
    ' ',
  ),
  deu: 'der die das und für fur mit ist von bei nicht nach gemäß gemass datum kategorie höchstmenge produkt produktname nummer hersteller zertifikat ausgabe seife anwendung wird durch den dem zum zur'.split(
    ' ',
  ),
  fra: 'le les des et pour avec est du dans une par selon date catégorie categorie produit numéro numero fournisseur certificat conformité conformite teneur maximale savon niveau'.split(
    ' ',
  ),
  ita: 'il di della del dei per con è una nel secondo data categoria prodotto numero fornitore certificato conformità conformita livello massimo sapone'.split(
    ' ',
  ),
  spa: 'el los las y para con es una del según segun fecha categoría categoria producto número numero proveedor certificado conformidad nivel máximo maximo jabón jabon'.split(
    ' ',
  ),
  nld: 'de het een en voor met is van niet volgens datum categorie product productnaam nummer leverancier certificaat conformiteit maximaal niveau zeep gehalte'.split(
    ' ',
  ),
  pol: 'i w na z dla oraz jest nie od do według data kategoria produkt produktu nazwa numer dostawca certyfikat zgodności zgodnosci maksymalny poziom mydło mydlo stężenie'.split(
    ' ',
  ),
};

/** So many of a language's words at least make a page one of it, and so many times those of any other. */
const LEAST_WORDS = 4;
const TIMES_OTHERS = 1.3;

/**
 * The language of a page; null where its words tell none apart.
 *
 * @example pageLanguage('Datum der Ausgabe: Mai. Höchstmenge in Seife nach Kategorie') // 'deu'
 */
export function pageLanguage(text: string): PageLanguage | null {
  const words = text.toLowerCase().match(/\p{L}+/gu) ?? [];
  const counts = PAGE_LANGUAGES.map((language) => {
    const known = new Set(WORDS[language]);
    return { language, count: words.filter((word) => known.has(word)).length };
  });
  const [first, second] = counts.sort((a, b) => b.count - a.count);
  const isClear = first!.count >= LEAST_WORDS && first!.count >= TIMES_OTHERS * second!.count;
  return isClear ? first!.language : null;
}
