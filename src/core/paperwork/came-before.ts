/** A paper that came before under the same number: what it says otherwise now, line by line. Pure. */
import type { AcceptedPaper, MaterialDocument } from '../records/papers';
import { spoken } from '../spoken';

const percent = (value: number | undefined) => (value === undefined ? 'nothing' : `${value} %`);

type Said = ReadonlyMap<string, string>;

/** What a paper says, in lines that can be held beside each other. */
function saidBy(paper: AcceptedPaper): Said {
  const said = new Map<string, string>([
    ['its day', paper.issuedOn],
    ['its issuer', paper.issuer],
    ['the edition', paper.edition ?? 'none'],
  ]);
  if (paper.type === 'certificate') {
    said.set(`category ${paper.category ?? '9'}`, percent(paper.maxPct));
    for (const { category, maxPct } of paper.otherCategories ?? [])
      said.set(`category ${category}`, percent(maxPct));
    for (const { constituent, maxPct } of paper.limits ?? []) said.set(spoken(constituent), percent(maxPct));
    said.set('the flash point', paper.flashPointC === undefined ? 'nothing' : `${paper.flashPointC} °C`);
    said.set('vanillin', percent(paper.vanillinPct));
  }
  for (const { id, lowPct, typicalPct, highPct } of paper.constituents ?? [])
    said.set(spoken(id), lowPct === highPct ? percent(typicalPct) : `${lowPct} to ${highPct} %`);
  return said;
}

const plain = (number: string) => number.trim().toLowerCase().replace(/\s+/g, ' ');

/**
 * What a paper says otherwise than the one of its kind and number that is on file; null where none is, empty where it says
 * the same. The newest on file counts.
 *
 * @example
 * saysOtherwise(paper, onFile) // ['category 9: 2.75 % before, 2.5 % now']
 */
export function saysOtherwise(paper: AcceptedPaper, onFile: readonly MaterialDocument[]): string[] | null {
  const before = onFile
    .filter(({ type, number }) => type === paper.type && plain(number) === plain(paper.number))
    .sort((a, b) => (b.takenOn ?? '').localeCompare(a.takenOn ?? ''))[0];
  if (!before) return null;
  const [was, is] = [saidBy(before), saidBy(paper)];
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((what) => {
    const [then, now] = [was.get(what) ?? 'nothing', is.get(what) ?? 'nothing'];
    return then === now ? [] : [`${what}: ${then} before, ${now} now`];
  });
}
