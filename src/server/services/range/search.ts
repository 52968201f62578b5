/** One search over bars, materials, lots, batches, papers, labels and rules. */
import type { Hit } from '../../../core/records/search';
import { rank, trigrams, wordsOf } from '../../../core/search/rank';
import { spoken } from '../../../core/spoken';
import { LIBRARY } from '../../../library';
import type { House } from '../../house';
import { itemsBeginning, itemsSharing } from '../../repositories/search';
import { snapshotOf, type StoreSnapshot } from '../../store/snapshot';

const MOST_HITS = 40;
const LONGEST_WORDS = 12;

const LIBRARY_HITS: readonly Hit[] = LIBRARY.map(({ id, name, inci, alsoNamed }) => ({
  kind: 'material',
  id,
  title: name,
  words: [...(inci ?? []).map((one) => one.name), ...(alsoNamed ?? [])].join(' '),
  href: `/cupboard?material=${encodeURIComponent(id)}`,
}));

const ruleHits = new WeakMap<StoreSnapshot, Hit[]>();

/** What rules speak of, each once. */
function rulesOf(snapshot: StoreSnapshot): Hit[] {
  const known = ruleHits.get(snapshot);
  if (known) return known;
  const subjects = new Map<string, string>();
  for (const { subject, force } of snapshot.limits) {
    const words = subjects.get(subject.id) ?? '';
    if (!words.includes(force)) subjects.set(subject.id, `${words} limit ${force}`.trim());
  }
  for (const { id, name } of snapshot.declarables) {
    subjects.set(id, `${subjects.get(id) ?? ''} ${name} declare on the label`.trim());
  }
  const hits = [...subjects].map(([id, words]): Hit => ({
    kind: 'rule',
    id,
    title: spoken(id),
    words,
    href: `/rulebook?find=${encodeURIComponent(spoken(id))}`,
  }));
  ruleHits.set(snapshot, hits);
  return hits;
}

function ranked(typed: readonly string[], hits: readonly Hit[]): Hit[] {
  return hits
    .map((hit) => ({ hit, value: rank(typed, hit.title, hit.words) }))
    .filter(({ value }) => value > 0)
    .sort((a, b) => b.value - a.value || a.hit.title.localeCompare(b.hit.title))
    .slice(0, MOST_HITS)
    .map(({ hit }) => hit);
}

/** What answers to a few words, best first. */
export async function search({ db, today }: House, text: string): Promise<Hit[]> {
  const typed = wordsOf(text).slice(0, LONGEST_WORDS);
  if (typed.length === 0) return [];
  const pieces = trigrams(typed);
  const found = pieces.length > 0 ? await itemsSharing(db, pieces) : await itemsBeginning(db, typed[0]!);
  const rules = rulesOf(await snapshotOf(db, today));
  const own = new Set(found.filter(({ kind }) => kind === 'material').map(({ id }) => id));
  const shipped = LIBRARY_HITS.filter(({ id }) => !own.has(id));
  const hits = ranked(typed, [...found, ...shipped, ...rules]);
  if (hits.length > 0) return hits;
  // Errors so thick that no three letters are right: the first letter mostly is.
  return ranked(typed, await itemsBeginning(db, typed[0]!.slice(0, 1)));
}
