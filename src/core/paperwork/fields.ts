/** What a paper says about itself: number, edition, date, issuer, material, flash point, vanillin. */
import { readNumber, type DecimalMark } from '../quantities/number';
import { dayOrderIn, findDay, type DayFound } from './dates';
import { readFigure } from './figures';
import {
  COMPANY_MARK,
  DATE_WORD,
  FLASH_POINT,
  ISSUED_WORD,
  ISSUER_LABEL,
  NUMBER_NOUN,
  NUMBER_SIGN,
  OTHER_DAY_WORD,
  REVISED_WORD,
} from './labels';
import { EDITION_WORD, plainText } from './lexicon';
import {
  below,
  isLabel,
  labelled,
  matched,
  NUMBER_LABEL,
  SAME_COLUMN_PT,
  SIGN,
  type Found,
  type Taken,
} from './labelled';
import { findMaterial } from './material-name';
import { lineText, type Paper } from './page';
import { pageLanguage } from './page-language';

export interface PaperFields {
  material: Taken<string> | null;
  number: Taken<string> | null;
  issuer: Taken<string> | null;
  edition: Taken<string> | null;
  issuedOn: Taken<string> | null;
  flashPointC: Taken<number> | null;
  vanillinPct: Taken<number> | null;
}

const SPEAKS_OF_EDITION = new RegExp(EDITION_WORD);
/** Laws and standards have numbers too; none of them is the document's. */
const LAW =
  /regulat|directive|verordnung|richtlinie|reglement|reglamento|regolamento|direttiva|directiva|verordening|\(e[cu]\)|\be[cu] (?:no|n[°º.]|\d{3,4})|\biso\b|\biec\b|\bclp\b|reach|annex|anhang|standard|amendment/;
const NUMBER_VALUE = String.raw`([a-z]{0,8}[-/ .]?\d[a-z0-9]*(?:[-/._][a-z0-9]+| / \d[a-z0-9]*(?![a-z0-9]*[./-]\d))*)`;

/** Whether a text can be the number of a document: digits in it, and no day, law, year or share. */
function isNumber(value: string): boolean {
  const plain = plainText(value);
  if (!/\d/.test(plain) || plain.length < 3 || plain.length > 32) return false;
  if (LAW.test(plain) || SPEAKS_OF_EDITION.test(plain) || /^(?:19|20)\d\d$/.test(plain) || /[%°]/.test(plain))
    return false;
  if (findDay(value)?.said.length === value.length) return false;
  const words = plain.replace(/ ?([/-]) ?/g, '$1').split(' ');
  return /^[a-z0-9][a-z0-9 ./_-]*$/.test(plain) && words.length <= 3;
}

/** A number without the day that stands behind it: "AL-90 / 11.06.2026". */
function withoutDay(value: string): string {
  const [, number, rest] = /^(\S.*?)\s+[/|–-]\s+(\S.*)$/.exec(value) ?? [];
  return rest !== undefined && findDay(rest)?.said === rest ? number! : value;
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
    if (isNumber(withoutDay(value))) return { ...found, value: withoutDay(value) };
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
  // "N° CC-2026-45 du 12 août", "…, number FV-2026/3": nothing but a sign, beside the day or at an end.
  const signed = new RegExp(
    `(?:^\\s*${NUMBER_SIGN}\\.?\\s*[:#]?\\s*${NUMBER_VALUE}(?=\\s+(?:du|vom|of|dated|del?|dal|van|z dnia)\\b)|[,;]\\s*${NUMBER_SIGN}\\.?\\s*[:#]?\\s*([a-z]{1,8}[-/.]?\\d[a-z0-9]*(?:[-/._][a-z0-9]+)*)\\s*$)`,
  );
  for (const [line, entry] of paper.lines.entries()) {
    const text = lineText(entry);
    const plain = plainText(text);
    const match = signed.exec(plain);
    const said = match?.[1] ?? match?.[2];
    if (!match || !said || new RegExp(`\\b${OTHERS_NUMBER}\\b`).test(plain.slice(0, match.index))) continue;
    const end = match.index + match[0].length;
    const value = text.slice(end - said.length, end).trim();
    if (isNumber(value)) return { value, line, said: text.slice(match.index, end), question: null };
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
  const text = paper.lines.map(lineText).join('\n');
  const order = dayOrderIn(text, pageLanguage(text));
  const days: { found: DayFound; line: number; rank: number }[] = [];
  paper.lines.forEach((entry, line) => {
    entry.cells.forEach((cell, place) => {
      const found = findDay(cell.text, order);
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
