/** A material as its form holds it: everything as text, lists one a line. */
import { isFatty } from '../../core/formula/fats';
import { naohOf, type Alkali } from '../../core/chemistry/saponification';
import type { Concern, Origin, TraitMaterial } from '../../core/formula/traits';
import { FATTY_ACIDS, type FattyAcids, type Kind } from '../../core/formula/types';
import { readNumber, readNumberOrNull } from '../../core/quantities/number';

export interface Draft {
  name: string;
  kind: Kind;
  supplier: string;
  /** One part a line: name, then its share where there are several. */
  inci: string;
  /** CAS, EC and colour index numbers, apart by commas or blanks. */
  numbers: string;
  waterPct: string;
  naohPerGram: string;
  /** Which alkali the saponification value is of; empty until it is said. */
  alkali: Alkali | '';
  soapName: string;
  density: string;
  bulkDensity: string;
  /** Measured doubt of a level spoon, percent; empty for the usual one. */
  spoonPct: string;
  /** The maker's own ceiling, percent of the fats. */
  ownMaxPct: string;
  /** One constituent a line: id or name, low, typical, high. */
  constituents: string;
  origin: Origin | '';
  /** Whether it speeds the batter, and whether it rices; empty while nobody said. */
  speeds: '' | 'no' | 'yes';
  rices: '' | 'no' | 'yes';
  sharp: boolean;
  stains: boolean;
  swells: boolean;
  drawsWater: boolean;
  colour: string;
  /** Of grains, micrometres: the largest. */
  grainUm: string;
  sugarPct: string;
  /** Fat in it that is not its own, as of milk, percent. */
  fatPct: string;
  /** Of an acid: grams of sodium hydroxide that a gram takes up. */
  alkaliUptake: string;
  concerns: Concern[];
  /** One fatty acid a line: name ; percent. */
  fattyAcids: string;
}

const OWN_LIMIT = 'own-ceiling';
/** Which field a fault of the server belongs to, by its path. */
const FIELDS: readonly (readonly [RegExp, keyof Draft])[] = [
  [/^material\.saponification\.formedInci/, 'soapName'],
  [/^material\.saponification/, 'naohPerGram'],
  [/^material\.limits/, 'ownMaxPct'],
  [/^material\.fattyAcids/, 'fattyAcids'],
  [/^material\.behaviour\.(colour|sugarPct|grainUm)/, 'colour'],
  [/^material\.(fatPct|alkaliUptake|origin|concerns)\b/, 'name'],
  [/^material\.(name|kind|inci|numbers|waterPct|density|bulkDensity|spoonPct|constituents)\b/, 'name'],
  [/^supplier/, 'supplier'],
];

export function fieldOf(path: string): keyof Draft | null {
  const found = FIELDS.find(([pattern]) => pattern.test(path));
  if (!found) return null;
  const [pattern, field] = found;
  return field === 'name' ? (pattern.exec(path)![1] as keyof Draft) : field;
}

const said = (value: boolean | undefined) => (value === undefined ? '' : value ? 'yes' : 'no');
const answer = (value: '' | 'no' | 'yes') => (value === '' ? undefined : value === 'yes');

function traitsOf(material: TraitMaterial | null) {
  const { behaviour = {}, origin, concerns, fatPct, alkaliUptake, fattyAcids } = material ?? {};
  return {
    origin: origin ?? ('' as const),
    speeds: said(behaviour.speeds),
    rices: said(behaviour.rices),
    sharp: behaviour.sharp ?? false,
    stains: behaviour.stains ?? false,
    swells: behaviour.swells ?? false,
    drawsWater: behaviour.drawsWater ?? false,
    colour: behaviour.colour ?? '',
    grainUm: text(behaviour.grainUm?.[1]),
    sugarPct: text(behaviour.sugarPct),
    fatPct: text(fatPct),
    alkaliUptake: text(alkaliUptake),
    concerns: concerns ?? [],
    fattyAcids: Object.entries(fattyAcids ?? {})
      .map(([acid, pct]) => `${acid} ; ${pct}`)
      .join('\n'),
  } as const;
}

/** What a draft says of how it behaves; what is not said is left out, and so counts as not known. */
function behaviourOf(draft: Draft, before: TraitMaterial | null): TraitMaterial['behaviour'] {
  const grain = readNumberOrNull(draft.grainUm);
  const known = before?.behaviour ?? {};
  const { grainUm: [least = 0] = [] } = known;
  const ticked = (name: 'sharp' | 'stains' | 'swells' | 'drawsWater') =>
    draft[name] || known[name] !== undefined ? { [name]: draft[name] } : {};
  const sugarPct = readNumberOrNull(draft.sugarPct);
  return {
    ...(known.wettingTimes ? { wettingTimes: known.wettingTimes } : {}),
    ...ticked('sharp'),
    ...ticked('stains'),
    ...ticked('swells'),
    ...ticked('drawsWater'),
    ...(draft.speeds === '' ? {} : { speeds: answer(draft.speeds) }),
    ...(draft.rices === '' ? {} : { rices: answer(draft.rices) }),
    ...(draft.colour.trim() ? { colour: draft.colour.trim() } : {}),
    ...(grain === null ? {} : { grainUm: [Math.min(least, grain), grain] }),
    ...(sugarPct === null ? {} : { sugarPct }),
  };
}

/** Acids by their names, small letters and a dash or space aside; NaN of what is no number, which the server names. */
function acidsOf(value: string): FattyAcids | null {
  const found = rows(value).flatMap(([name, pct]) => {
    const acid = FATTY_ACIDS.find((one) => one.toLowerCase() === name!.toLowerCase().replace(/[^a-z]/g, ''));
    return [[acid ?? name!, readNumber(pct ?? '')] as const];
  });
  return found.length > 0 ? Object.fromEntries(found) : null;
}

const text = (value: number | null | undefined) => (value == null ? '' : String(value));

/** The draft of a material on file; an empty one for a new one. */
export function draftOf(material: TraitMaterial | null, supplier: string | null): Draft {
  const own = material?.limits?.find(({ id }) => id === OWN_LIMIT);
  return {
    name: material?.name ?? '',
    kind: material?.kind ?? 'botanical',
    supplier: supplier ?? '',
    inci: (material?.inci ?? [])
      .map(({ name, sharePct }) => (sharePct === 100 ? name : `${name} ; ${sharePct}`))
      .join('\n'),
    numbers: (material?.numbers ?? []).join(', '),
    waterPct: text(material?.waterPct),
    naohPerGram: text(material?.saponification?.naohPerGram),
    alkali: material?.saponification ? 'NaOH' : '',
    soapName: material?.saponification?.formedInci ?? '',
    density: text(material?.density),
    bulkDensity: text(material?.bulkDensity),
    spoonPct: text(material?.spoonPct),
    ownMaxPct: text(own?.maxPct),
    constituents: (material?.constituents ?? [])
      .map(({ id, lowPct, typicalPct, highPct }) => `${id} ; ${lowPct} ; ${typicalPct} ; ${highPct}`)
      .join('\n'),
    ...traitsOf(material),
  };
}

/** A relative's way of being, for a material that is like it: all but its name, its maker and its papers. */
export function likeThis(draft: Draft, relative: TraitMaterial): Draft {
  const {
    name: _name,
    supplier: _supplier,
    ownMaxPct: _ceiling,
    spoonPct: _spoon,
    numbers: _numbers,
    ...like
  } = draftOf(relative, null);
  return { ...draft, ...like, inci: draft.inci || like.inci, constituents: draft.constituents };
}

const rows = (value: string) =>
  value
    .split('\n')
    .map((line) => line.split(';').map((cell) => cell.trim()))
    .filter(([first]) => first);

/** Numbers as they are written apart; a colour index number may hold a blank. */
const numbersOf = (value: string): string[] | null => {
  const found = value.split(/[,;\n]+/).map((one) => one.trim());
  const numbers = found.filter((one) => one !== '');
  return numbers.length > 0 ? numbers : null;
};

/** What is sent of a draft; `before` is what stands on file, whose other facts are kept. */
export function bodyOf(
  draft: Draft,
  before: TraitMaterial | null,
): Omit<TraitMaterial, 'id'> & { id?: string } {
  const role = /fragrance|essentialOil|isolate/.test(draft.kind)
    ? ('scent' as const)
    : ('ingredient' as const);
  const inci = rows(draft.inci).map(([name, share]) => {
    const known = before?.inci?.find((part) => part.name === name);
    return { role, ...known, name: name!, sharePct: share ? readNumber(share) : 100 };
  });
  const others = (before?.limits ?? []).filter(({ id }) => id !== OWN_LIMIT);
  const own = readNumberOrNull(draft.ownMaxPct);
  const isFat = isFatty(draft);
  return {
    name: draft.name,
    kind: draft.kind,
    origin: draft.origin || undefined,
    concerns: draft.concerns,
    behaviour: behaviourOf(draft, before),
    fatPct: readNumberOrNull(draft.fatPct),
    alkaliUptake: readNumberOrNull(draft.alkaliUptake),
    fattyAcids: acidsOf(draft.fattyAcids),
    inci,
    numbers: numbersOf(draft.numbers),
    waterPct: readNumberOrNull(draft.waterPct) ?? 0,
    density: readNumberOrNull(draft.density),
    bulkDensity: readNumberOrNull(draft.bulkDensity),
    spoonPct: readNumberOrNull(draft.spoonPct),
    saponification: isFat
      ? {
          as: draft.kind === 'wax' ? 'wax' : 'triglyceride',
          ...before?.saponification,
          naohPerGram: draft.alkali === '' ? NaN : naohOf(readNumber(draft.naohPerGram), draft.alkali),
          formedInci: draft.soapName || null,
        }
      : null,
    constituents: rows(draft.constituents).map(([id, low, typical, high]) => ({
      id: id!.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
      lowPct: readNumber(low ?? ''),
      typicalPct: readNumber(typical ?? low ?? ''),
      highPct: readNumber(high ?? typical ?? low ?? ''),
    })),
    limits:
      own === null || !before
        ? others
        : [
            ...others,
            {
              id: OWN_LIMIT,
              subject: { type: 'material', id: before.id },
              maxPct: own,
              basis: 'fats',
              force: 'craft',
              source: 'Your own ceiling',
            },
          ],
  };
}
