/** What a paper says about itself: number, edition, date, issuer, material, flash point, vanillin. */
import { readNumber, type DecimalMark } from '../quantities/number';
import { findDay, type DayFound } from './dates';
import { readFigure } from './figures';
import {
  COMPANY_MARK,
  DATE_WORD,
  FLASH_POINT,
  ISSUED_WORD,
  ISSUER_LABEL,
  MATERIAL_LABEL,
  NUMBER_NOUN,
  NUMBER_SIGN,
  OTHER_DAY_WORD,
  REVISED_WORD,
} from './labels';
import { EDITION_WORD, plainText } from './lexicon';
import { lineText, type Cell, type Paper } from './page';

/** Something taken from a paper: from which line, in which words, and what is to be asked. */
export interface Taken<T> {
  value: T;
  /** Index of the line in the paper. */
  line: number;
  said: string;
  question: string | null;
  /** Other readings that fit as well. */
  others?: T[];
  /** Several readings fit as well as each other: none is taken before the maker chose. */
  isOpen?: boolean;
}

export interface PaperFields {
  material: Taken<string> | null;
  number: Taken<string> | null;
  issuer: Taken<string> | null;
  edition: Taken<string> | null;
  issuedOn: Taken<string> | null;
  flashPointC: Taken<number> | null;
  vanillinPct: Taken<number> | null;
}

const SIGN = `(?:\\.?[-\\s]*${NUMBER_SIGN}\\.?)`;
/** "Certificate no.", "Documentnummer", "N° de document", "Numero documento". */
const NUMBER_LABEL = `(?:${NUMBER_NOUN}${SIGN}|${NUMBER_SIGN}\\.?\\s*(?:de[ls]?\\s|du\\s|di\\s|des\\s|of\\s)?\\s*(?:the\\s)?${NUMBER_NOUN})`;
const LABEL = new RegExp(
  `^(?:${[MATERIAL_LABEL, ISSUER_LABEL, NUMBER_LABEL, NUMBER_NOUN, ISSUED_WORD, DATE_WORD, FLASH_POINT, 'vanill?ine?'].join('|')})$`,
);

/** The value below a label is looked for within this many line heights. */
const BELOW_HEIGHTS = 2.6;
const SAME_COLUMN_PT = 14;

/** A cell below another, in the next line and the same column. */
function below(paper: Paper, index: number, cell: Cell): { cell: Cell; line: number } | null {
  const line = paper.lines[index]!;
  const next = paper.lines[index + 1];
  if (!next || next.page !== line.page || next.yPt - line.yPt > BELOW_HEIGHTS * line.heightPt) return null;
  const found = next.cells.find(({ xPt }) => Math.abs(xPt - cell.xPt) < SAME_COLUMN_PT);
  return found ? { cell: found, line: index + 1 } : null;
}

/** Whether a cell is a label itself, so that what stands beside it is not the value of the one before. */
function isLabel(text: string): boolean {
  return /[:：]\s*$/.test(text) || LABEL.test(plainText(text));
}

type Found = Taken<string>;

/** Everything that goes with a label that begins a cell: behind it, in the next cell, or below it. */
function* labelled(paper: Paper, label: string): Generator<Found> {
  const pattern = new RegExp(`^${label}\\.?\\s*(?:[:#]|$|\\.{2,}|\\s-\\s)\\s*`);
  for (const [index, line] of paper.lines.entries()) {
    for (const [place, cell] of line.cells.entries()) {
      const match = pattern.exec(plainText(cell.text));
      if (!match) continue;
      const rest = cell.text
        .slice(match[0].length)
        .replace(/^[:\s.-]+/, '')
        .trim();
      if (rest !== '') {
        yield { value: rest, line: index, said: cell.text, question: null };
        continue;
      }
      const next = line.cells[place + 1];
      const beside = next && !isLabel(next.text) ? next : undefined;
      const under = below(paper, index, cell);
      if (beside)
        yield {
          value: beside.text.replace(/^:\s*/, ''),
          line: index,
          said: `${cell.text} ${beside.text}`,
          question: null,
        };
      else if (under)
        yield {
          value: under.cell.text,
          line: under.line,
          said: `${cell.text} ${under.cell.text}`,
          question: null,
        };
    }
  }
}

/** The first line on which a pattern is found anywhere. */
function matched(
  paper: Paper,
  pattern: RegExp,
): { match: RegExpExecArray; line: number; said: string } | null {
  for (const [line, entry] of paper.lines.entries()) {
    const text = lineText(entry);
    const match = pattern.exec(plainText(text));
    if (match) return { match, line, said: text.slice(match.index, match.index + match[0].length).trim() };
  }
  return null;
}

const SPEAKS_OF_EDITION = new RegExp(EDITION_WORD);
/** Laws and standards have numbers too; none of them is the document's. */
const LAW =
  /regulat|directive|verordnung|richtlinie|reglement|reglamento|regolamento|direttiva|directiva|verordening|\(e[cu]\)|\be[cu] (?:no|n[°º.]|\d{3,4})|\biso\b|\biec\b|\bclp\b|reach|annex|anhang|standard|amendment/;
const NUMBER_VALUE = String.raw`([a-z]{0,8}[-/ .]?\d[a-z0-9]*(?:[-/._][a-z0-9]+)*)`;

/** Whether a text can be the number of a document: digits in it, and no day, law, year or share. */
function isNumber(value: string): boolean {
  const plain = plainText(value);
  if (!/\d/.test(plain) || plain.length < 3 || plain.length > 32) return false;
  if (LAW.test(plain) || SPEAKS_OF_EDITION.test(plain) || /^(?:19|20)\d\d$/.test(plain) || /[%°]/.test(plain))
    return false;
  if (findDay(value)?.said.length === value.length) return false;
  return /^[a-z0-9][a-z0-9 ./_-]*$/.test(plain) && plain.split(' ').length <= 3;
}

/** What has numbers too that are not the paper's. */
const OTHERS_NUMBER =
  '(?:batch|lot|charge|lote|lotto|partij|partii|cas|ec|page|invoice|order|article|item|product|customer|kunden|artikel)';

function findNumber(paper: Paper): Found | null {
  const inline = new RegExp(
    `\\b${NUMBER_NOUN}${SIGN}?\\s*(?:[:#.]|is\\b|ist\\b|est\\b|es\\b)?\\s*${NUMBER_VALUE}`,
  );
  // A title that ends in it: "Certificate of conformity SF-977".
  const titled = new RegExp(
    `^\\s*${NUMBER_NOUN} (?![a-z' ]*\\b${OTHERS_NUMBER}\\b)[a-z' ]{0,40}\\b((?!(?:e[ucgn]|ce|iso|iec|din|ifra|cas)\\b)[a-z]{1,6}-\\d{2,}[a-z0-9-]*)\\s*$`,
  );
  // "Declaration of conformity no. WA/118".
  const worded = new RegExp(
    `\\b${NUMBER_NOUN} (?![a-z' ]*\\b${OTHERS_NUMBER}\\b)[a-z' ]{2,40}\\b(?:number|numero|nummer|numer|no|nr|n\\.?\\s?[°º]|n\\.)\\.?\\s*[:#]?\\s*${NUMBER_VALUE}`,
  );
  const strict = new RegExp(`\\b${NUMBER_NOUN}${SIGN}\\s*[:#.]?\\s*${NUMBER_VALUE}`);
  for (const found of [...labelled(paper, NUMBER_LABEL), ...labelled(paper, NUMBER_NOUN)]) {
    const value = found.value.split(/\s{2,}|[,;]\s|\s(?=(?:of|vom|du|del|van|date|rev)\b)/)[0]!.trim();
    if (isNumber(value)) return { ...found, value };
  }
  for (const pattern of [strict, inline, worded, titled]) {
    for (const [line, entry] of paper.lines.entries()) {
      const text = lineText(entry);
      const plain = plainText(text);
      const match = pattern.exec(plain);
      if (!match || LAW.test(plain.slice(Math.max(0, match.index - 24), match.index))) continue;
      const end = match.index + match[0].length;
      const value = text.slice(end - match[1]!.length, end).trim();
      if (isNumber(value)) return { value, line, said: text.slice(match.index, end), question: null };
    }
  }
  // A label that says nothing but that it is a number, before a code of letters and figures.
  for (const found of labelled(paper, `(?:${NUMBER_SIGN})`)) {
    const value = found.value.trim();
    if (isNumber(value) && /[a-z]/i.test(value) && /\d{2}/.test(value))
      return { ...found, value, question: 'Is this the number of the paper?' };
  }
  return null;
}

/** An edition as papers name it: "51st". */
export function ordinal(edition: number): string {
  const tens = edition % 100;
  const suffix = tens >= 11 && tens <= 13 ? 'th' : (['th', 'st', 'nd', 'rd'][edition % 10] ?? 'th');
  return `${edition}${suffix}`;
}

/** Editions of the industry's standard that papers in use can speak of. */
const OLDEST_EDITION = 38;
const LAST_EDITION = 79;
const ORDINAL = String.raw`\s?(?:st|nd|rd|th|eme|e|er|a|o|\.|[°ºª]|\. ?)?`;
const EDITIONS: readonly RegExp[] = [
  new RegExp(`\\b(\\d{2})${ORDINAL}\\s*[-–]?\\s*(?:ifra[- ]?)?${EDITION_WORD}`, 'g'),
  new RegExp(`${EDITION_WORD}\\s*(?:${NUMBER_SIGN}\\.?)?\\s*[:#.-]?\\s*(\\d{2})(?:st|nd|rd|th)?\\b`, 'g'),
  /\bifra(?:[- ](?:standards?|code|conformity|amendment|certificate))*\s*[:#-]?\s*(\d{2})(?![\d./-])/g,
];

function findEdition(paper: Paper): Found | null {
  const found: (Found & { edition: number })[] = [];
  for (const [line, entry] of paper.lines.entries()) {
    const text = lineText(entry);
    const plain = plainText(text);
    for (const pattern of EDITIONS) {
      for (const match of plain.matchAll(pattern)) {
        const edition = Number(match[1]);
        if (edition < OLDEST_EDITION || edition > LAST_EDITION) continue;
        const said = text.slice(match.index, match.index + match[0].length);
        found.push({ value: ordinal(edition), line, said, question: null, edition });
      }
    }
  }
  const distinct = [...new Set(found.map(({ edition }) => edition))].sort((a, b) => b - a);
  const newest = found.find(({ edition }) => edition === distinct[0]);
  if (!newest) return null;
  const { edition: _, ...taken } = newest;
  if (distinct.length === 1) return taken;
  const others = distinct.slice(1).map(ordinal);
  return {
    ...taken,
    others,
    question: `The paper also speaks of the ${others.join(' and ')}. Which one does it certify?`,
  };
}

/** How well a day's line says that it is the day of issue; smaller is better, null where it says another thing. */
function dayRank(plain: string): number | null {
  if (new RegExp(`\\b${ISSUED_WORD}(?![a-z])`).test(plain)) return 0;
  if (new RegExp(`\\b${OTHER_DAY_WORD}\\b`).test(plain)) return null;
  if (new RegExp(`\\b${EDITION_WORD}`).test(plain)) return 4;
  if (new RegExp(`\\b${REVISED_WORD}(?![a-z])`).test(plain)) return 2;
  return new RegExp(`\\b${DATE_WORD}\\b`).test(plain) ? 1 : 3;
}

function findIssued(paper: Paper): Found | null {
  const days: { found: DayFound; line: number; rank: number }[] = [];
  paper.lines.forEach((entry, line) => {
    entry.cells.forEach((cell, place) => {
      const found = findDay(cell.text);
      if (!found) return;
      const before = entry.cells[place - 1]?.text ?? '';
      const above =
        paper.lines[line - 1]?.cells.find(({ xPt }) => Math.abs(xPt - cell.xPt) < SAME_COLUMN_PT)?.text ?? '';
      // What stands right before a day says which day it is.
      const at = cell.text.indexOf(found.said);
      const lead = cell.text.slice(Math.max(0, at - LEAD_LETTERS), at);
      const own = plainText(`${lead.trim() === '' ? before : lead} `);
      const rank = dayRank(own) ?? 9;
      const rankAbove = rank === 3 && before === '' ? dayRank(plainText(above)) : null;
      days.push({ found, line, rank: rankAbove !== null && rankAbove < rank ? rankAbove : rank });
    });
  });
  const best = days.sort((a, b) => a.rank - b.rank || a.line - b.line)[0];
  if (!best) return null;
  const { found, line, rank } = best;
  const unsure =
    rank >= 3
      ? 'Is this the day the paper was issued?'
      : rank === 2
        ? 'This is the day of a revision. Is it the day that counts?'
        : null;
  return { value: found.day, line, said: found.said, question: found.question ?? unsure };
}

/** Letters before a day that are held to speak of it. */
const LEAD_LETTERS = 34;

const FAHRENHEIT_AT_32 = 32;

const DEGREES = String.raw`([<>≥≤]?)\s*(-?\d+(?:[.,]\d+)?)\s*(?:°|deg\.?|º)?\s*([cf])\b`;

function findFlashPoint(paper: Paper): Taken<number> | null {
  const value = new RegExp(`^${DEGREES}`);
  const named = [...labelled(paper, FLASH_POINT)].find((found) => value.test(plainText(found.value)));
  const found = named
    ? { match: value.exec(plainText(named.value))!, line: named.line, said: named.said }
    : matched(paper, new RegExp(`${FLASH_POINT}[^\\d<>≥≤]*${DEGREES}`));
  if (!found) return null;
  const [, sign, digits, scale] = found.match;
  const degrees = readNumber(digits!);
  const celsius = scale === 'f' ? ((degrees - FAHRENHEIT_AT_32) * 5) / 9 : degrees;
  const question = sign ? `The paper says “${sign}”; the figure is held as it stands.` : null;
  return { value: Number(celsius.toFixed(1)), line: found.line, said: found.said, question };
}

const VANILLIN_LABEL = 'vanill?ine?(?:gehalt)?(?:\\s+(?:content|share|gehalt))?(?:\\s*\\([^)]*\\))?';

function findVanillin(paper: Paper, mark: DecimalMark): Taken<number> | null {
  const stated = (text: string) =>
    /%|ppm|mg\/kg|n\.?\s?[dn]|none|detect/i.test(text) ? readFigure(text, '%', mark) : null;
  const named = [...labelled(paper, VANILLIN_LABEL)].find(({ value }) => stated(value) !== null);
  if (named) {
    const { highPct, question } = stated(named.value)!;
    return { value: highPct, line: named.line, said: named.said, question };
  }
  const found = matched(
    paper,
    new RegExp(
      `(?<!ethyl[ -]?)(?<!ethyl)\\b${VANILLIN_LABEL}\\s*[:=]?\\s+(?:121-33-5\\s+)?((?:[<≤]|max\\.?|ca\\.?)?\\s*\\d+(?:[.,]\\d+)?\\s*(?:%|ppm|mg\\/kg)|n\\.?\\s?[dn]\\.?|none|not detected)`,
    ),
  );
  const figure = found && readFigure(found.match[1]!, '%', mark);
  return figure && { value: figure.highPct, line: found.line, said: found.said, question: figure.question };
}

/** Words that head a paper and name no company. */
const TITLE =
  /data sheet|invoice|rechnung|certificat|zertifikat|konformitat|conformi|certificado|declarat|declarac|dichiaraz|erklarung|verklaring|allergen|statement|analys|page \d|seite \d|www\.|@|tel\b|phone|\d{3}/;
const HEAD_LINES = 6;

/** A day or a temperature that stands so close that it was taken for a part of the name. */
const FIGURE_TAIL = /\s+[<>]?\d[\d.,/-]*\s*(?:°.*)?$/;

const LEGAL_FORM = /^(?:&\s)?(?:ltd|limited|inc|llc|plc|gmbh|co|kg|sas|srl|bv|b\.v|s\.?a|ag)\b[\w.& ]*$/i;
const OPEN_NAME = /(?:\bCo\.?|&|,|\band)$/;

/** The legal form of a name that broke over two lines ("Fragrance Co." / "Ltd"). */
function restOfName(paper: Paper, line: number, head: string): string {
  if (!OPEN_NAME.test(head)) return '';
  const cell = paper.lines[line]!.cells.find(({ text }) => text.includes(head));
  const next = cell && below(paper, line, cell);
  return next && LEGAL_FORM.test(next.cell.text) ? ` ${next.cell.text}` : '';
}

function findIssuer(paper: Paper): Found | null {
  for (const found of labelled(paper, ISSUER_LABEL)) {
    const head = found.value
      .split(/\s{2,}|,\s(?!(?:ltd|limited|inc|llc|plc|gmbh)\b)|\s[|·–-]\s/i)[0]!
      .replace(FIGURE_TAIL, '')
      .trim();
    const value = head + restOfName(paper, found.line, head);
    if (/\p{L}{3}/u.test(value) && value.length <= 80) return { ...found, value };
  }
  const cells = paper.lines.flatMap((line, at) =>
    line.cells.map(({ text: said }) => {
      const text = said.split(/\s[|·–-]\s|,\s/)[0]!.trim();
      return { said, text, at, plain: plainText(text) };
    }),
  );
  const isFree = ({ text, plain }: { text: string; plain: string }) =>
    !TITLE.test(plain) && !isLabel(text) && !/:\s/.test(text) && text.length <= 60;
  const head = cells.filter((cell) => cell.at < HEAD_LINES && isFree(cell));
  const foot = cells.filter((cell) => cell.at >= paper.lines.length - HEAD_LINES && isFree(cell));
  const company =
    head.find(({ plain }) => COMPANY_MARK.test(plain)) ??
    head.find(({ at }) => at === 0) ??
    foot.find(({ plain }) => COMPANY_MARK.test(plain));
  if (!company) return null;
  return {
    value: company.text,
    line: company.at,
    said: company.said,
    question: 'Taken from the letterhead. Is this who issued it?',
  };
}

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

function findMaterial(paper: Paper): Found | null {
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
  const sentence = paper.lines.map(lineText).join(' ').slice(0, 6000);
  const match = IN_SENTENCE.exec(sentence);
  const line = match
    ? paper.lines.findIndex((entry) => lineText(entry).includes(match[1]!.slice(0, 12)))
    : -1;
  if (!match || line < 0) return null;
  const question = 'Taken from a sentence. Is this the name of the material?';
  return { value: match[1]!.trim(), line, said: match[0], question };
}

/** Reads what a paper says about itself. Null where it says nothing. */
export function readFields(paper: Paper, mark: DecimalMark): PaperFields {
  return {
    material: findMaterial(paper),
    number: findNumber(paper),
    issuer: findIssuer(paper),
    edition: findEdition(paper),
    issuedOn: findIssued(paper),
    flashPointC: findFlashPoint(paper),
    vanillinPct: findVanillin(paper, mark),
  };
}
