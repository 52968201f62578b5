/** What a market asks of a bar, item by item, and what the application can see of it. */
import { evidenceNoted, type EvidenceNote } from '../claims/evidence';
import type { ClaimFinding } from '../claims/types';
import type { Assessment } from '../formula/answer';
import { isColourPart } from '../formula/colours';
import type { Market, Material } from '../formula/types';
import { compareVerdicts } from '../loads/limits';
import type { Words } from './content';
import type { Regime, Standing } from './standing';

export interface AskedItem {
  id: string;
  text: string;
  when: readonly Regime[];
  check: string | null;
}

export type ItemState = 'seen' | 'missing' | 'yours';

export interface CheckedItem<T extends AskedItem> {
  item: T;
  /** `seen`: the application sees it is so. `missing`: it sees it is not. `yours`: only the maker can tell. */
  state: ItemState;
  because: string;
}

export interface ColourFinding {
  name: string;
  materials: string[];
  permission: 'permitted' | 'notPermitted' | 'unlisted';
  /** What the rulebook says of it besides. */
  note?: string | null;
  /** What only a paper shows, as that it came from a certified batch. */
  asks?: readonly string[];
}

/** What the rulebook knows of a colour in a market. */
export type ColourKnown = Pick<ColourFinding, 'permission' | 'note' | 'asks'>;

/** Every colourant of a formula's materials and whether the market lets it in. */
export function colourFindings(
  materials: readonly Material[],
  known: (name: string) => ColourKnown,
): ColourFinding[] {
  const byName = new Map<string, string[]>();
  for (const material of materials) {
    for (const part of material.inci ?? []) {
      const name = part.colour ?? part.name;
      if (isColourPart(material, part)) byName.set(name, [...(byName.get(name) ?? []), material.name]);
    }
  }
  return [...byName].map(([name, from]) => ({
    name,
    materials: [...new Set(from)],
    ...known(name),
  }));
}

/** What the application knows of a bar in a market. */
export interface Seen {
  market: Market;
  standing: Standing;
  assessment: Assessment;
  claims: readonly ClaimFinding[];
  /** Sentences that speak of the body in words that no phrase knows. */
  unknown: readonly string[];
  /** Where the evidence for them is, as noted. */
  evidence: readonly EvidenceNote[];
  colours: readonly ColourFinding[];
  responsible: readonly string[];
  netMassG: number | null;
  batchCode: string;
  durabilityStated: boolean;
  identity: Words;
  cautions: Words;
}

/** `isYours`: what is seen is only what the maker has to look at. */
type Look = (seen: Seen) => { isSeen: boolean; because: string; isYours?: boolean };

function limits({ assessment, market }: Seen) {
  const verdict = assessment.markets.find((entry) => entry.market === market)?.verdict ?? 'unproven';
  const isSeen = compareVerdicts(verdict, 'tight') >= 0;
  const words = {
    over: 'a load is over',
    unproven: 'a scent is unproven',
    atRisk: 'a load is at risk',
    tight: 'tight',
    clear: 'clear',
  };
  return { isSeen, because: words[verdict] };
}

function colours({ colours: found, standing }: Seen) {
  if (standing.regime === 'soap') return { isSeen: true, because: 'soap proper is outside the colour rule' };
  const barred = found.filter(({ permission }) => permission === 'notPermitted');
  const unlisted = found.filter(({ permission }) => permission === 'unlisted');
  if (barred.length > 0)
    return { isSeen: false, because: `not let in as a colour: ${barred.map(({ name }) => name).join(', ')}` };
  if (unlisted.length > 0)
    return {
      isSeen: false,
      because: `not on the list here, ask: ${unlisted.map(({ name }) => name).join(', ')}`,
    };
  const asked = found.filter(({ asks = [] }) => asks.length > 0);
  if (asked.length > 0)
    return {
      isSeen: false,
      isYours: true,
      because: asked.map(({ name, asks = [] }) => `${name}: ${asks.join('; ')}`).join(' · '),
    };
  const told = found.map(({ name, note }) => (note ? `${name} (${note})` : name));
  return { isSeen: true, because: found.length === 0 ? 'no colours in it' : told.join(', ') };
}

const quoted = (words: readonly string[]) => words.map((one) => `“${one}”`).join(', ');

function claimed({ claims, market, unknown }: Seen) {
  const graver = claims.filter((claim) => claim.class[market] === 'medicine');
  if (graver.length > 0)
    return { isSeen: false, because: quoted([...new Set(graver.map(({ words }) => words))]) };
  return unknown.length > 0
    ? {
        isSeen: false,
        isYours: true,
        because: `say under “Words” what is promised by ${quoted(unknown)}`,
      }
    : { isSeen: true, because: 'none found in the words under “Words”' };
}

/** Words that promise want evidence, and those without bounds cannot have any. */
function evidence({ claims, market, evidence: notes }: Seen) {
  const said = (kind: string) => [
    ...new Set(claims.filter((claim) => claim.class[market] === kind).map(({ words }) => words)),
  ];
  const absolute = said('absolute');
  if (absolute.length > 0) return { isSeen: false, because: `without bounds: ${quoted(absolute)}` };
  const promised = said('cosmetic');
  if (promised.length === 0) return { isSeen: true, because: 'no promises found in the words under “Words”' };
  const bare = promised.filter((words) => evidenceNoted(notes, words) === null);
  return bare.length === 0
    ? { isSeen: true, because: `on file for ${quoted(promised)}; whether it carries them is yours to see` }
    : { isSeen: false, because: `none noted under “Words” for ${quoted(bare)}` };
}

function french({ identity, cautions }: Seen) {
  const lacking = [
    ...(identity.fr?.trim() ? [] : ['what it is']),
    ...(!cautions.en?.trim() || cautions.fr?.trim() ? [] : ['the cautions']),
  ];
  return {
    isSeen: lacking.length === 0,
    because: lacking.length === 0 ? 'both given' : `no French for ${lacking.join(' and ')}`,
  };
}

const LOOKS: Record<string, Look> = {
  limits,
  colours,
  claims: claimed,
  evidence,
  french,
  list: ({ assessment, market }) => {
    const named = assessment.declarables.filter((row) => row.market === market && row.declare).length;
    return { isSeen: true, because: `made from the formula; ${named} allergens named` };
  },
  responsible: ({ responsible }) => {
    const isSeen = responsible.join('').trim() !== '';
    return {
      isSeen,
      because: isSeen
        ? 'an address is on file; whether it lies in the market is yours to see'
        : 'no address on file',
    };
  },
  net: ({ netMassG }) => ({
    isSeen: netMassG !== null,
    because: netMassG === null ? 'not stated yet' : `${netMassG} g`,
  }),
  batch: ({ batchCode }) => ({ isSeen: batchCode.trim() !== '', because: batchCode || 'none given' }),
  durability: ({ durabilityStated }) => ({
    isSeen: durabilityStated,
    because: durabilityStated ? 'stated' : 'not stated yet',
  }),
  soapProper: ({ standing }) => ({
    isSeen: standing.regime === 'soap',
    because: [...standing.because, ...standing.assumed].join('; '),
  }),
};

/** The items that apply to what the bar is, with what is seen of each. */
export function checkItems<T extends AskedItem>(items: readonly T[], seen: Seen): CheckedItem<T>[] {
  return items
    .filter(({ when }) => when.includes(seen.standing.regime))
    .map((item) => {
      const look = item.check === null ? undefined : LOOKS[item.check];
      if (!look) return { item, state: 'yours', because: '' };
      const { isSeen, because, isYours } = look(seen);
      return { item, state: isYours ? 'yours' : isSeen ? 'seen' : 'missing', because };
    });
}
