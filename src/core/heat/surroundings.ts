/** What stands between the batter and the air: walls, lining, blanket, table, and how warm it is beyond. */
import type { MouldShape, MouldWall, Surroundings } from './types';

/** One face of the block. */
export interface Face {
  /** From the batter's face to the air or mat, m2 K/W. */
  resistance: number;
  c: number;
}

export interface Faces {
  side: Face;
  top: Face;
  bottom: Face;
}

/** Wall and lining, m2 K/W (handbook conductivities over usual thicknesses; craft). */
const WALL: Record<MouldWall, number> = { wood: 0.12, silicone: 0.02, plastic: 0.02, cardboard: 0.1 };
/** Still air in a room with what is radiated; moving air in a fridge, m2 K/W. */
const ROOM_FILM = 0.11;
const FRIDGE_FILM = 0.06;
const FRIDGE_C = 4;
/** A blanket or towels with a lid; a table top with its still air; a fridge's shelf of wire. */
const BLANKET = 0.5;
const TABLE = 0.12;
const SHELF = 0.05;

/**
 * The faces of a mould as it rests. `wall` scales every resistance: moulds, blankets and draughts differ.
 * Left as it is, the top is open; kept warm, it is covered on all sides; chilled, it stands open in a fridge.
 */
export function facesOf({ wall }: MouldShape, { way, roomC, matC }: Surroundings, factor = 1): Faces {
  const film = way === 'chill' ? FRIDGE_FILM : ROOM_FILM;
  const c = way === 'chill' ? FRIDGE_C : roomC;
  const cover = way === 'warm' ? BLANKET : 0;
  const face = (resistance: number): Face => ({ resistance: resistance * factor, c });
  const isOnMat = matC != null && way !== 'chill';
  const below = way === 'chill' ? SHELF + film : TABLE + cover / 2;
  return {
    side: face(WALL[wall] + film + cover),
    top: face(film + cover),
    bottom: isOnMat ? { resistance: WALL[wall] * factor, c: matC } : face(WALL[wall] + below),
  };
}

/** The coldest and the warmest that the block meets, °C. */
export function rangeOf({ side, top, bottom }: Faces): { coldest: number; hottest: number } {
  const all = [side.c, top.c, bottom.c];
  return { coldest: Math.min(...all), hottest: Math.max(...all) };
}
