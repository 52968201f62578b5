/**
 * What carries a claim, and where that is on file: a promise wants a test or a study, a word on what is in the bar wants
 * the supplier's or the maker's own paper where the formula alone cannot tell, and what has no bounds nothing carries.
 */
import type { Market } from '../formula/types';
import type { Fact } from './facts';
import { folded } from '../folded';
import type { ClaimFinding, FactId } from './types';

/** Where a claim's evidence is, in the maker's words; `words` are the claim's as it stands in the text. */
export interface EvidenceNote {
  words: string;
  says: string;
}

const SHOWN_ON_SKIN =
  'what it does, shown on the finished bar as it is used and rinsed off: a test with people (how many, how, what came) or a study of the material at the load in this bar';

/** What only a paper tells of what is in the bar or how it was made. */
const OF_FACT: Record<FactId, string> = {
  vegan: 'each supplier’s statement that nothing in it is from animals',
  palmFree: 'suppliers’ statements of what fatty acids, glycerin and scents are made from',
  unscented: 'the formula: no scent in it, and none that covers another',
  natural: 'what you count as natural and how much of the bar that is, by a way of counting that you name',
  organic: 'the certificate of a certifying body for this bar; that of a material carries only that material',
  milkFree: 'suppliers’ statements on milk and its traces',
  nutFree: 'suppliers’ statements on nuts and their traces, and how your own place keeps them apart',
  glutenFree: 'suppliers’ statements on gluten and its traces',
  crueltyFree:
    'statements of you and of your suppliers; in the EU and the UK tests on animals are banned for every cosmetic, so that saying it as an advantage misleads',
  handmade: 'the records of its batches: who poured, cut and packed',
};

/**
 * What a claim wants as evidence in a market; null where it wants none, or where nothing could carry it and it has to
 * go. A fact that the formula bears out needs no more.
 */
export function evidenceAsked(
  { class: of, fact }: Pick<ClaimFinding, 'class' | 'fact'>,
  market: Market,
  facts: readonly Fact[],
): string | null {
  const kind = of[market];
  if (kind === 'medicine' || kind === 'absolute') return null;
  if (fact === null) return kind === 'cosmetic' ? SHOWN_ON_SKIN : null;
  const standing = facts.find(({ id }) => id === fact)?.standing;
  return standing === 'holds' || standing === 'contradicted' ? null : OF_FACT[fact];
}

const bare = (words: string) => folded(words).replace(/\s+/g, ' ').trim();

/**
 * Where the evidence for a claim's words is, as the maker noted it; null where nothing is noted.
 *
 * @example evidenceNoted([{ words: 'softens skin', says: 'folder C' }], 'Softens  skin') // 'folder C'
 */
export function evidenceNoted(notes: readonly EvidenceNote[], words: string): string | null {
  const says = notes.find((note) => bare(note.words) === bare(words))?.says ?? '';
  return says.trim() === '' ? null : says;
}

/** Notes for words that are not, or no longer, among the claims. */
export function strayEvidence(
  notes: readonly EvidenceNote[],
  claims: readonly Pick<ClaimFinding, 'words'>[],
): EvidenceNote[] {
  const standing = new Set(claims.map(({ words }) => bare(words)));
  return notes.filter((note) => !standing.has(bare(note.words)));
}

/** The notes with what is noted for a claim's words; an empty one is taken away. */
export function withEvidence(notes: readonly EvidenceNote[], words: string, says: string): EvidenceNote[] {
  const others = notes.filter((note) => bare(note.words) !== bare(words));
  return says === '' ? others : [...others, { words, says }];
}
