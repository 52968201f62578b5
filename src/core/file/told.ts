/** What is said of a bar and what was heard: labels, claims with their evidence, complaints, what the market asks. */
import { evidenceAsked, evidenceNoted } from '../claims/evidence';
import type { Fact } from '../claims/facts';
import type { ClaimClass } from '../claims/types';
import { GRAVITIES, GRAVITY_WORDS, KIND_WORDS } from '../records/complaints';
import { section, type FileInput, type FileSection } from './types';

/** Labels as issued; they go along to the byte. */
export function labels({ issued, market }: FileInput): FileSection {
  const told = section('labels', 'Labels as issued');
  const here = issued.filter((label) => label.market === market);
  if (here.length === 0) {
    told.missing.push('A label: none was issued for this market yet.');
    return told;
  }
  told.tables.push({
    columns: ['Label', 'Issued', 'Batch', 'Net', 'Stood', 'Rulebook'],
    at: [0, 36, 50, 66, 76, 86],
    rows: here.map(({ id, issuedOn, batchCode, netMassG, verdict, rulebookEdition }) => [
      id,
      issuedOn,
      batchCode,
      `${netMassG} g`,
      verdict,
      rulebookEdition,
    ]),
  });
  const [newest] = here;
  told.lines.push(
    `The newest says: ${[newest!.content.front.name, newest!.content.front.identity, newest!.content.front.net, ...newest!.content.info.map(({ text }) => text)].join(' · ')}`,
  );
  return told;
}

const CLASS_WORDS: Record<ClaimClass, string> = {
  plain: 'says what it is',
  composition: 'says what is in it',
  cosmetic: 'promises something: wants evidence',
  absolute: 'promises without bounds: no evidence can carry it',
  medicine: 'makes it a medicine: take it out',
};

/** What the formula says of a claim's fact; empty where it speaks of none, or cannot tell. */
function borne(fact: Fact | undefined): string {
  if (fact?.standing === 'holds') return 'the formula bears it out';
  if (fact?.standing === 'contradicted') return `the formula speaks against it: ${fact.because.join(', ')}`;
  return '';
}

/** Claims in its words, each with what speaks for it here. */
export function claims({ claims: found, facts, market, wrap }: FileInput): FileSection {
  const told = section('claims', 'Claims and their evidence');
  const rows = new Map<string, string[]>();
  for (const claim of found) {
    const { words, fact } = claim;
    const kind = claim.class[market];
    const known = facts.find(({ id }) => id === fact);
    const asked = evidenceAsked(claim, market, facts);
    const noted = evidenceNoted(wrap.evidence ?? [], words);
    const open = asked === null ? '' : `none noted; wanted: ${asked}`;
    rows.set(words.toLowerCase(), [`“${words}”`, CLASS_WORDS[kind], borne(known) || (noted ?? open)]);
    if (kind === 'medicine')
      told.missing.push(`“${words}” makes it a medicine here: take it out of its words.`);
    if (kind === 'absolute') told.missing.push(`“${words}” has no bounds: say less.`);
    if (known?.standing === 'contradicted')
      told.missing.push(`“${words}”: ${known.because.join(', ')} speak against it.`);
    if (asked !== null && noted === null) told.missing.push(`Evidence for “${words}”: ${asked}.`);
  }
  told.missing = [...new Set(told.missing)];
  if (rows.size > 0)
    told.tables.push({
      columns: ['Words', 'Here', 'What speaks for it'],
      at: [0, 26, 50],
      rows: [...rows.values()],
    });
  else told.lines.push('Nothing in its words promises more than a soap that cleans.');
  return told;
}

/** Complaints and unwanted effects, counted and told. */
export function heard({ complaints, keptWords }: FileInput): FileSection {
  const told = section('complaints', 'Complaints and unwanted effects');
  const effects = complaints.filter(({ kind }) => kind === 'effect');
  told.lines.push(
    `${complaints.length} on file, ${effects.length} of them unwanted effects (${GRAVITIES.map((one) => `${one} ${effects.filter(({ gravity }) => gravity === one).length}`).join(', ')}).`,
  );
  if (keptWords !== null) told.lines.push(`Kept: ${keptWords}.`);
  if (complaints.length > 0)
    told.tables.push({
      columns: ['Heard', 'Batch', 'What', 'How grave', 'Done'],
      at: [0, 12, 26, 62, 76],
      rows: complaints.map(({ heardOn, batchCode, code, kind, gravity, what, done, closedOn }) => [
        heardOn,
        batchCode ?? code ?? 'not known',
        `${KIND_WORDS[kind]}: ${what}`,
        GRAVITY_WORDS[gravity],
        `${done}${closedOn ? ` (closed ${closedOn})` : ''}`,
      ]),
    });
  for (const { heardOn, terms } of complaints)
    for (const { words, dueOn } of terms)
      told.lines.push(`Heard ${heardOn}${dueOn ? `, by ${dueOn}` : ''}: ${words}`);
  const open = complaints.filter(({ closedOn }) => closedOn === null);
  if (open.length > 0)
    told.missing.push(open.length === 1 ? 'A complaint is open.' : `${open.length} complaints are open.`);
  return told;
}

/** What the market asks, and how far it is there. */
export function asked({ items, wrap, market }: FileInput): FileSection {
  const told = section('asked', 'What this market asks');
  const stateOf = (state: string, id: string) =>
    state === 'yours'
      ? wrap.ticked.includes(`${market} ${id}`)
        ? 'ticked by the maker'
        : 'not ticked'
      : state;
  told.tables.push({
    columns: ['Asked', 'Stands', 'Why'],
    at: [0, 50, 66],
    rows: items.map(({ item, state, because }) => [item.text, stateOf(state, item.id), because]),
  });
  told.missing = items.flatMap(({ item, state, because }) =>
    state === 'missing'
      ? [`${item.text}${because ? `: ${because}` : ''}`]
      : state === 'yours' && !wrap.ticked.includes(`${market} ${item.id}`)
        ? [`${item.text}: tick it in the wrap once it is done`]
        : [],
  );
  return told;
}
