/** A list of materials as the cupboard takes it: each row a material that is known, or a new one, with its lot. Pure. */
import { isFatty } from '../formula/fats';
import { isScent } from '../formula/scents';
import type { Kind } from '../formula/types';
import type { ImportedStock } from '../records/import';
import type { SheetFault } from './cells';
import { gramsHeld, priceOfAll, type StockItem, type StockLot } from './stock';

/** What is known of a name. */
export interface KnownMaterial {
  id: string;
  kind: Kind;
  /** Whether the name says it beyond doubt. */
  isSure: boolean;
  /** Whether somebody chose it for the name. */
  isChosen?: boolean;
  /** Grams a millilitre weighs; null where that is not on file. */
  gPerMl: number | null;
}

export interface StockTaking {
  find: (name: string) => KnownMaterial | null;
  /** The kind that was said of a name that is to be a new material. */
  newKind: (name: string) => Kind | null;
  /** YYYY-MM-DD, for lots that do not say when they came. */
  today: string;
}

export interface StockRow extends ImportedStock {
  notes: string[];
}

function lotIn(
  { row, name, supplier }: StockItem,
  lot: StockLot,
  gPerMl: number | null,
  today: string,
): { lot: ImportedStock['lot']; notes: string[] } | { fault: string } {
  const [boughtG, leftG] = [gramsHeld(lot.bought, gPerMl), gramsHeld(lot.left, gPerMl)];
  if (boughtG === null || leftG === null)
    return { fault: `${name}: what a millilitre of it weighs is not on file. Give grams.` };
  if (leftG > boughtG) return { fault: `${name}: no more can be left than was bought.` };
  const notes = lot.receivedOn === null ? ['It does not say when it came: today is taken.'] : [];
  if (lot.code === null) notes.push('No lot is written down: look at the label.');
  const { openedOn, bestBefore, price, priceOf } = lot;
  return {
    notes,
    lot: {
      supplier,
      code: lot.code ?? `not written down, row ${row}`,
      receivedOn: lot.receivedOn ?? today,
      openedOn,
      bestBefore,
      quantityG: boughtG,
      leftG,
      price: price === null ? null : priceOfAll(price, priceOf, boughtG),
    },
  };
}

/**
 * Whether a name stands among things that what it was taken for is none of: "Rose" under "Clays" is no rose oil. "Oils"
 * head fats and essential oils, "Additives" anything.
 */
function standsApart(kind: Kind | null, known: KnownMaterial): boolean {
  if (kind === null || kind === 'other' || known.isChosen) return false;
  if (!known.isSure) return kind !== known.kind;
  return kind !== 'fat' && isScent({ kind }) !== isScent(known);
}

/** Whether what a name is taken for is to be looked at. */
export const isDoubtful = (kind: Kind | null, known: KnownMaterial | null): boolean =>
  !known?.isSure || standsApart(kind, known);

/** What a row is: a known material, or a new one; why not where it is neither. */
export function materialOf(
  { name, kind, inci, naohPerGram }: StockItem,
  { find, newKind }: StockTaking,
): (Pick<ImportedStock, 'material' | 'own'> & { gPerMl: number | null }) | { fault: string } {
  const said = newKind(name);
  const known = said === null ? find(name) : null;
  if (known && !standsApart(kind, known)) return { material: known.id, own: null, gPerMl: known.gPerMl };
  const ownKind = said ?? kind;
  if (ownKind === null)
    return { fault: `“${name}” is not known here. Choose what it is, or say what kind of thing it is.` };
  if (isFatty({ kind: ownKind }) && naohPerGram === null)
    return {
      fault: `${name}: how it saponifies is not on file. Add a column “SAP NaOH”, or choose what it is.`,
    };
  return { material: null, own: { name, kind: ownKind, inci, naohPerGram }, gPerMl: null };
}

/**
 * Every row that can be taken, and why others cannot.
 *
 * @example
 * takeStock(readStock(rows, layout).items, { find, newKind: () => null, today: '2026-11-24' }).rows[0].lot?.quantityG;
 */
export function takeStock(
  items: readonly StockItem[],
  taking: StockTaking,
): { rows: StockRow[]; faults: SheetFault[] } {
  const rows: StockRow[] = [];
  const faults: SheetFault[] = [];
  for (const item of items) {
    const { row, name, supplier } = item;
    const material = materialOf(item, taking);
    if ('fault' in material) {
      faults.push({ row, message: material.fault });
      continue;
    }
    const { gPerMl, ...what } = material;
    const held = item.lot ? lotIn(item, item.lot, gPerMl, taking.today) : { lot: null, notes: [] };
    if ('fault' in held) faults.push({ row, message: held.fault });
    else rows.push({ row, name, supplier, ...what, ...held });
  }
  return { rows, faults };
}
