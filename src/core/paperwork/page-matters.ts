/** Which pages of a long paper speak of levels, allergens or the paper itself; by their words alone. Pure. */

const SIGNS: readonly (readonly [RegExp, string])[] = [
  [/certificat|zertifikat|certificado|conformit|declaration of compliance|konformit/i, 'certificate'],
  [/categor|kategorie|catégorie|product class/i, 'categories'],
  [/maximum (?:level|use|concentration)|höchst|maximal|niveau maxim|nivel máxim|limite maxim/i, 'levels'],
  [/allergen|allergène|alérgen|7[. ]?amendment|annex iii/i, 'allergens'],
  [/\b\d{2,7}-\d{2}-\d\b/, 'CAS numbers'],
  [/flash ?point|flammpunkt|point d.?éclair|punto de inflamación/i, 'flash point'],
  [/vanillin/i, 'vanillin'],
  [/amendment|\b(?:4|5)\d(?:st|nd|rd|th)\b/i, 'edition'],
];

/** Of so many signs a page matters. */
const LEAST_SIGNS = 2;

/**
 * What a page speaks of, in words; empty where too little of it matters to a maker.
 *
 * @example pageSays('Certificate of conformity … Category 9 … maximum level') // 'certificate, categories, levels'
 */
export function pageSays(text: string): string {
  const found = SIGNS.filter(([sign]) => sign.test(text)).map(([, words]) => words);
  return found.length >= LEAST_SIGNS ? found.join(', ') : '';
}
