/** The starter library: materials every maker knows, without any supplier's paper. */
import botanicals from './data/botanicals.json';
import colourants from './data/colourants.json';
import dissolved from './data/dissolved.json';
import fibres from './data/fibres.json';
import clays from './data/clays.json';
import liquids from './data/liquids.json';
import scents from './data/scents.json';
import { FATS } from './fats';
import { withReached } from './reach';
import { readShelf, type ShelfFile } from './shelves';
import type { LibraryMaterial } from './types';

const FILES = [liquids, scents, clays, dissolved, botanicals, colourants, fibres] as unknown as ShelfFile[];

/** Every material of the library, shelf by shelf. */
export const LIBRARY: readonly LibraryMaterial[] = [...FATS, ...FILES.flatMap(readShelf)].map(withReached);

const BY_ID: ReadonlyMap<string, LibraryMaterial> = new Map(LIBRARY.map((entry) => [entry.id, entry]));

/** The library's material of that id, or undefined. */
export function libraryMaterial(id: string): LibraryMaterial | undefined {
  return BY_ID.get(id);
}
