/** A material as its form holds it: everything as text, lists one a line. */
import { isFatty } from '../../core/formula/fats';
import { naohOf, type Alkali } from '../../core/chemistry/saponification';
import type { Kind, Material } from '../../core/formula/types';
import { readNumber, readNumberOrNull } from '../../core/quantities/number';

export interface Draft {
  name: string;
  kind: Kind;
  supplier: string;
  /** One part a line: name, then its share where there are several. */
  inci: string;
  waterPct: string;
  naohPerGram: string;
  /** Which alkali the saponification value is of. */
  alkali: Alkali;
  soapName: string;
  density: string;
  bulkDensity: string;
  /** The maker's own ceiling, percent of the fats. */
  ownMaxPct: string;
  /** One constituent a line: id or name, low, typical, high. */
  constituents: string;
}

const OWN_LIMIT = 'own-ceiling';
/** Which field a fault of the server belongs to, by its path. */
const FIELDS: readonly (readonly [RegExp, keyof Draft])[] = [
  [/^material\.saponification\.formedInci/, 'soapName'],
  [/^material\.saponification/, 'naohPerGram'],
  [/^material\.limits/, 'ownMaxPct'],
  [/^material\.(name|kind|inci|waterPct|density|bulkDensity|constituents)\b/, 'name'],
  [/^supplier/, 'supplier'],
];

export function fieldOf(path: string): keyof Draft | null {
  const found = FIELDS.find(([pattern]) => pattern.test(path));
  if (!found) return null;
  const [pattern, field] = found;
  return field === 'name' ? (pattern.exec(path)![1] as keyof Draft) : field;
}

const text = (value: number | null | undefined) => (value == null ? '' : String(value));

/** The draft of a material on file; an empty one for a new one. */
export function draftOf(material: Material | null, supplier: string | null): Draft {
  const own = material?.limits?.find(({ id }) => id === OWN_LIMIT);
  return {
    name: material?.name ?? '',
    kind: material?.kind ?? 'botanical',
    supplier: supplier ?? '',
    inci: (material?.inci ?? [])
      .map(({ name, sharePct }) => (sharePct === 100 ? name : `${name} ; ${sharePct}`))
      .join('\n'),
    waterPct: text(material?.waterPct),
    naohPerGram: text(material?.saponification?.naohPerGram),
    alkali: 'NaOH',
    soapName: material?.saponification?.formedInci ?? '',
    density: text(material?.density),
    bulkDensity: text(material?.bulkDensity),
    ownMaxPct: text(own?.maxPct),
    constituents: (material?.constituents ?? [])
      .map(({ id, lowPct, typicalPct, highPct }) => `${id} ; ${lowPct} ; ${typicalPct} ; ${highPct}`)
      .join('\n'),
  };
}

const rows = (value: string) =>
  value
    .split('\n')
    .map((line) => line.split(';').map((cell) => cell.trim()))
    .filter(([first]) => first);

/** What is sent of a draft; `before` is what stands on file, whose other facts are kept. */
export function bodyOf(draft: Draft, before: Material | null): Omit<Material, 'id'> & { id?: string } {
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
    inci,
    waterPct: readNumberOrNull(draft.waterPct) ?? 0,
    density: readNumberOrNull(draft.density),
    bulkDensity: readNumberOrNull(draft.bulkDensity),
    saponification: isFat
      ? {
          as: draft.kind === 'wax' ? 'wax' : 'triglyceride',
          ...before?.saponification,
          naohPerGram: naohOf(readNumber(draft.naohPerGram), draft.alkali),
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
