/** What makers write in sheets of bars besides materials and amounts: headings, titles, and words that fats go by. Pure. */
import { folded } from '../folded';

/** What a row sums up: it is no ingredient. */
const TOTAL =
  /^(?:(?:batch|grand|recipe|overall|soap|whole|full)\s+)?(?:totals?|sub-?totals?|sum|summe|suma|somme|somma|gesamt\w*|zwischensumme|totale|totaal|subtotaal|sous-total|batch (?:size|weight)|check)\b|\b(?:sub-?)?totals?$/;
export const isTotal = (name: string): boolean => TOTAL.test(folded(name));

const WHOLE_FATS =
  /^(?:(?:oils?|fats?)$|(?:total|batch|all) (?:oils?|fats?)|oils? (?:total|weight|in (?:the )?batch)|fats? (?:total|weight|in (?:the )?batch)|weight of (?:oils?|fats?))\b/;
/** Whether a row says how much all fats are together. */
export const isWholeFats = (name: string): boolean => WHOLE_FATS.test(folded(name));

const SECTION =
  /^(?:(?:lye|base|hard|soft|carrier|liquid|fragrance|essential)\s+)?(?:lye(?: solution| water)?|oils?|fats?|butters?|additives?|fragrances?|scents?|colou?r(?:ant)?s?|eos?|liquids?|extras?|add[ -]?ins?|others?|notes?|instructions?|method|directions?|(?:at )?trace|fette|ole|lauge|zusatze|dufte?|farben|huiles?|additifs?|parfums?|grassi|aceites?|oli)(?:\s*(?:&|\+|\/|and|und|et|e|y)\s.*)?$/;

/** When what stands below it goes in. */
const MOMENT =
  /^(?:after (?:the )?cook(?:ing)?|(?:on )?(?:the )?top(?:pings?)?|(?:at |after )?(?:light |thin |medium )?trace|held back|superfat(?:ting)? oils?)$/;
/** "Phase A - fats", "Teil 2", "Step 3: lye". */
const PART =
  /^(?:phase|part|step|stage|teil|schritt|partie|etape|parte|fase|paso|stap|deel)\s+(?:[a-h]|\d+|i{1,3}|iv|v)\b/;
/** What is done between the rows, as a sentence is written and no name: "Melt to 45 °C", "pour at light trace". */
const DONE =
  /^(?:melt|heat|pour|stir|add|mix|blend|cool|combine|insulate|dissolve|schmelzen|mischen|ruhren|giessen|faire fondre|melanger|verser)\s+(?:to|at|until|in|into|the|all|and|with|slowly|well|gently|together|oils?|fats?|lye|auf|bis|bei|alles|a|jusqu|le|la|les|tout)\b/;
const GOES_ON_SMALL = /^\s*\S+\s+\p{Ll}/u;

/** Whether a cell alone in its row heads a part of one bar, or says what is done, and names none: "Lye solution", "ADDITIVES:". */
export function isSection(cell: string): boolean {
  const words = folded(cell)
    .replace(/\s*[([][^)\]]*[)\]]/g, '')
    .replace(/[:.\-–—]+$/, '');
  return (
    SECTION.test(words) ||
    MOMENT.test(words) ||
    PART.test(words) ||
    (GOES_ON_SMALL.test(cell) && DONE.test(words))
  );
}

const CALLED =
  /^(?:(?:master )?batch(?: sheet| record)?|(?:soap )?recipe|formula(?:tion)?|soap|bar|product|rezept|seife|savon|recette|sapone|ricetta|jabon|receta|zeep|recept)(?: name)?\s*[:–—-]\s*(?=\S)/i;

/** A bar's name without what says that it is one: "SOAP: Tea Tree", "Batch sheet - Tea Tree". */
export const barName = (cell: string): string => cell.trim().replace(CALLED, '').replace(/:$/, '').trim();

const BESIDE =
  /^#|^(?:date|datum|data|fecha|day|made(?: on)?|bars?|yield|pieces|count|stuck|nr|no|cost|price|ph|temp(?:erature)?|notes?|remarks?|weight|total)\b/;

/** Whether a column or row of a table of bars says something else than an ingredient: a day, a count, a cost. */
export const isBeside = (head: string): boolean => BESIDE.test(folded(head));

const BULLET = /^\s*(?:[-–•*·]|\d{1,2}[.)](?=\s))\s*/;
/** A line of a list without what leads it: "- 500 g olive oil", "2) lye". */
export const withoutBullet = (line: string): string => line.replace(BULLET, '');

const QUANTITY = String.raw`[\d.,]+(?:\s*/\s*\d+)?\s*(?:g|gr|grams?|kg|oz|lbs?|pounds?|ounces?|ml|tsp|tbsp|cups?|%)(?![\p{L}\d])\.?`;
const AMOUNT_FIRST = new RegExp(`^(${QUANTITY})\\s+(?:of\\s+)?(\\p{L}.*)$`, 'iu');
const AMOUNT_LAST = new RegExp(`^(\\p{L}.*?)[\\s:,–-]+(${QUANTITY})$`, 'iu');

/**
 * A material and its amount out of one cell, as a recipe is typed; null where it is none.
 *
 * @example inOneCell('1.5 lb olive oil') // ['olive oil', '1.5 lb']
 */
export function inOneCell(cell: string): [name: string, amount: string] | null {
  const text = withoutBullet(cell).trim();
  const first = AMOUNT_FIRST.exec(text);
  if (first) return [first[2]!, first[1]!];
  const last = AMOUNT_LAST.exec(text);
  return last && [last[1]!, last[2]!];
}

/** What fats are called, oil or no oil. */
const FAT_WORDS =
  /\b(?:olive|coconut|castor|palm|shea|cocoa|avocado|sunflower|almond|rice bran|rapeseed|canola|lard|tallow|babassu|hemp|soy(?:bean)?|jojoba|grapeseed|apricot|macadamia|mango|beeswax|oliven?|kokos|raps|rizinus|mandel|kakao|sonnenblumen|tournesol|ricin|karite|colza|oliva|cocco|ricino|girasole|coco|koolzaad|zonnebloem|oliwa|olej|rycyn|rzepak)|^(?:ev)?oo$|^co$/;

export const isFatName = (name: string): boolean =>
  FAT_WORDS.test(folded(name)) && !/milk|water|essential|\beo\b|powder|milch|lait/.test(folded(name));
