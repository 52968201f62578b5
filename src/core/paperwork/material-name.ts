/** What a paper is of: the name of its material. */
import { MATERIAL_LABEL } from './labels';
import { labelled, type Found } from './labelled';
import { lineText, type Paper } from './page';

/** What follows a name and is no part of it: a code, a batch, a law. */
const NAME_TAIL =
  /\s+(?:[([]?(?:(?:our|your|unsere?|notre|nuestra|nostro) )?(?:code|art(?:icle)?|ref|item|batch|lot|charge|cas)\b.*|(?:no|nr|n°)\.?\s*[A-Z]*\d{3}.*|[([]\s*[A-Z]{0,4}[- ]?\d[\w/-]*\s*[)\]])$/i;
/** A sentence that goes on after the name, not a shortened word within it. */
const NEXT_SENTENCE = /(?<=\p{L}{3})\.\s+\p{Lu}\p{L}.*$/u;
/** The subject of a letter, after everything that names the product itself. */
const SUBJECT_LABEL = '(?:subject|betreff|betrifft|objet|asunto|oggetto|betreft|re)';
const SUBJECT_HEAD =
  /^(?:certificate|declaration|zertifikat|certificat|certificado|certificato) (?:for|of|fur|für|pour|para|per)\s+/i;
const NO_NAME = /^(?:code|type|category|use|application|description|n\/a|\d[\d\s./-]*)$/i;
const IN_SENTENCE =
  /(?:certif\w+|bestatigen|erklaren|attestons|declaramos|dichiariamo|verklaren)\b.{0,80}?(?:product|produkt|compound|composition(?: parfumante)?|mixture|mischung|melange|miscela|mezcla|mengsel|fragrance|material|produit|producto|prodotto|oil|ol)\s+["“«„]?([A-Z][^"”»“,.;]{2,50}?)["”»“]?(?=\s+(?:comp|meets|is in|conforms|entspricht|est conforme|cumple|e conforme|voldoet|supplied|with code)|[,.;"”»“]|$)/i;

/** "Composition (allergens), product Reed Cutter, 14 October": a later part of a line that begins with the label, in small letters. */
const IN_PART =
  /^(?:product|fragrance(?: oil)?|perfume(?: oil)?|material|compound|produit|parfum|prodotto|profumo|fragranza|producto|fragancia)\s+["“«„]?(\p{Lu}[^"”»“:]{1,50}?)["”»“]?$/u;
/** "Certificate DP-8 for Sedge": whom it is for may stand there as well. */
const TITLE_FOR =
  /^(?:[\p{L}' ]{0,30}\b)?(?:certificate|declaration|statement|zertifikat|certificat|certificado|certificato)\b[^:,]{0,24}\s(?:for|für|pour|para|per)\s+(\p{Lu}[^:,]{1,50})$/iu;
const HEADING_LINES = 6;

function inHeading(paper: Paper): Found | null {
  for (const [line, entry] of paper.lines.slice(0, HEADING_LINES).entries()) {
    const said = lineText(entry).trim();
    for (const part of said.split(/[,;]\s+/).slice(1, 4)) {
      const value = IN_PART.exec(part)?.[1];
      if (value && !NO_NAME.test(value)) return { value: value.trim(), line, said, question: null };
    }
    const named = TITLE_FOR.exec(said)?.[1];
    if (named && /^\p{Lu}/u.test(named))
      return {
        value: named.trim(),
        line,
        said,
        question: 'Is this the name of the material, or whom the paper is for?',
      };
  }
  return null;
}

export function findMaterial(paper: Paper): Found | null {
  const named = [...labelled(paper, MATERIAL_LABEL), ...labelled(paper, SUBJECT_LABEL)];
  for (const found of named) {
    const value = found.value
      .replace(NEXT_SENTENCE, '')
      .replace(NAME_TAIL, '')
      .replace(SUBJECT_HEAD, '')
      .replace(/^["“«„]|["”»“]$/g, '')
      .trim();
    if (!/\p{L}{2}/u.test(value) || NO_NAME.test(value) || value.length > 90) continue;
    return { ...found, value };
  }
  const headed = inHeading(paper);
  if (headed) return headed;
  const sentence = paper.lines.map(lineText).join(' ').slice(0, 6000);
  const match = IN_SENTENCE.exec(sentence);
  const line = match
    ? paper.lines.findIndex((entry) => lineText(entry).includes(match[1]!.slice(0, 12)))
    : -1;
  if (!match || line < 0) return null;
  const question = 'Taken from a sentence. Is this the name of the material?';
  return { value: match[1]!.trim(), line, said: match[0], question };
}
