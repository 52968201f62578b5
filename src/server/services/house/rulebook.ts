/** The rulebook, readable: limits and lists of an edition with their source, own limits, notes, and the edition as a file. */
import type { InlineEdition } from '../../../core/change/types';
import { membersOf } from '../../../core/formula/subject';
import type { Declarable, Limit } from '../../../core/formula/types';
import { groupBy } from '../../../core/group';
import { spoken } from '../../../core/spoken';
import type { ListRow, RulebookData, RuleNotes, RuleRow } from '../../../core/records/rulebook';
import { EDITION_NAMES, rulebook } from '../../../rulebook';
import type { House } from '../../house';
import { fault } from '../../http';
import { findHouseRules, findSetting, putSetting } from '../../repositories/settings';
import { snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { writing } from '../../store/writing';

/** An edition by its name, as a file holds it; 404 where it is not on file. */
export async function editionFile({ db, today }: House, name: string | null): Promise<InlineEdition> {
  const { editions } = await findHouseRules(db);
  const wanted = name ?? (await snapshotOf(db, today)).edition;
  const taken = editions.onFile.find(({ edition }) => edition === wanted);
  if (taken) return taken;
  if (!EDITION_NAMES.includes(wanted))
    throw fault(404, 'unknown-edition', `There is no edition "${wanted}" on file.`, 'edition');
  const { edition, dated, title, limits, declarables } = rulebook(wanted);
  return {
    edition,
    dated,
    title,
    limits: limits.map(({ id, subject, maxPct, basis, force, markets, from, to, source, onlyUnproven }) => ({
      ...{ id, subject, maxPct, basis, force, markets: markets ?? null, from: from ?? null, to: to ?? null },
      ...{ source: source ?? null, ...(onlyUnproven == null ? {} : { onlyUnproven }) },
    })),
    declarables: [...declarables],
  };
}

function nameOf(snapshot: StoreSnapshot, { subject }: Limit): string {
  if (subject.type === 'material') return snapshot.material(subject.id)?.name ?? spoken(subject.id);
  const nameOfOne = (one: string) => rulebook().allergens.find(({ id }) => id === one)?.name ?? spoken(one);
  return membersOf(subject).map(nameOfOne).join(' with ');
}

function listsOf(declarables: readonly Declarable[]): ListRow[] {
  const keyOf = ({ markets, thresholdPct, newFrom, allFrom, per }: Declarable) =>
    JSON.stringify([markets, thresholdPct, newFrom, allFrom, per]);
  return [...groupBy(declarables, keyOf).values()].flatMap((rows) => {
    const { markets, thresholdPct, newFrom, allFrom, per } = rows[0]!;
    const names = rows.map(({ name }) => name).sort((a, b) => a.localeCompare(b));
    return markets.map((market) => ({
      ...{ market, names, thresholdPct, per: per ?? ('product' as const) },
      ...{ newFrom: newFrom ?? null, allFrom: allFrom ?? null },
    }));
  });
}

/** An edition with the house's own limits and notes; 404 where it is not on file. */
export async function rulebookData(house: House, name: string | null): Promise<RulebookData> {
  const { db, today } = house;
  const snapshot = await snapshotOf(db, today);
  const { editions, ownLimits } = await findHouseRules(db);
  const file = await editionFile(house, name);
  const { value: notes, revision } = await findSetting(db, 'ruleNotes');
  const row = (limit: Limit, isOwn: boolean): RuleRow => ({ ...limit, name: nameOf(snapshot, limit), isOwn });
  return {
    edition: file.edition,
    inForce: snapshot.edition,
    editions: [...EDITION_NAMES, ...editions.onFile.map(({ edition }) => edition)],
    onDate: today,
    limits: [...ownLimits.map((limit) => row(limit, true)), ...file.limits.map((limit) => row(limit, false))],
    lists: listsOf(file.declarables),
    notes,
    revision,
  };
}

const MOST_NOTES = 2000;

/** Keeps a note at a rule, or takes it away with an empty one; the newer notes come back where they were changed in between. */
export function keepRuleNote(
  { db }: House,
  revision: number,
  id: string,
  text: string,
): Promise<{ notes: RuleNotes; revision: number; isStale: boolean }> {
  return writing(db, async (trx) => {
    const known = await findSetting(trx, 'ruleNotes');
    if (known.revision !== revision) return { notes: known.value, revision: known.revision, isStale: true };
    const { [id]: _, ...rest } = known.value;
    const notes = text.trim() === '' ? rest : { ...rest, [id]: text.trim() };
    if (Object.keys(notes).length > MOST_NOTES)
      throw fault(422, 'too-many', `At most ${MOST_NOTES} rules carry a note. Take one away first.`, 'id');
    const kept = await putSetting(trx, 'ruleNotes', notes);
    return { notes: kept.value, revision: kept.revision, isStale: false };
  });
}

/** Takes one of the house's own limits away; 404 where there is none. */
export function dropOwnLimit({ db }: House, id: string): Promise<void> {
  return writing(db, async (trx) => {
    const { value } = await findSetting(trx, 'ownLimits');
    if (!value.some((limit) => limit.id === id))
      throw fault(404, 'unknown-limit', `There is no limit "${id}" of your own.`, 'id');
    await putSetting(
      trx,
      'ownLimits',
      value.filter((limit) => limit.id !== id),
    );
  });
}
