/** The door of a shelf that was counted. */
import {
  Clearable,
  Day,
  Id,
  ListOf,
  LONGEST,
  Name,
  NotEmpty,
  NumberBetween,
  OrNull,
  Text,
  YesNo,
} from './fields';

const MOST_GRAMS = 1e7;
const MOST_LOTS = 2000;

class CountedLotDoor {
  @Id() lot!: string;
  @NumberBetween(0, MOST_GRAMS) leftG!: number;
}

export class CountDoor {
  @NotEmpty('Count at least one lot.') @ListOf(() => CountedLotDoor, MOST_LOTS) rows!: CountedLotDoor[];
  @Name('the reason', LONGEST.line) reason!: string;
}

export interface ShelfCounted {
  rows: { lot: string; leftG: number }[];
  reason: string;
}

/** Holds a lot with what it went into, or frees it. */
export class HoldDoor {
  @YesNo() isHeld!: boolean;
  @Name('the reason', LONGEST.name) reason!: string;
  @OrNull() @Text(LONGEST.name) by!: string | null;
}

export interface Hold {
  isHeld: boolean;
  reason: string;
  by: string | null;
}

const MOST_PRICE = 1e7;

class DeliveredDoor {
  @Id() material!: string;
  @NumberBetween(0.001, MOST_GRAMS) quantityG!: number;
  @OrNull() @Text(LONGEST.short) code!: string | null;
  @OrNull() @Day() bestBefore!: string | null;
  @OrNull() @NumberBetween(0, MOST_PRICE) price!: number | null;
}

/** A delivery: many lots of one day and supplier. */
export class DeliveryDoor {
  @Text(LONGEST.name) supplier!: string;
  @Day() receivedOn!: string;
  @NotEmpty('Name at least one thing that came.')
  @ListOf(() => DeliveredDoor, MOST_LOTS)
  rows!: DeliveredDoor[];
}

export interface Delivery {
  supplier: string;
  receivedOn: string;
  rows: {
    /** Of the cupboard or the library. */
    material: string;
    quantityG: number;
    /** Numbered as the maker does where null. */
    code: string | null;
    bestBefore: string | null;
    price: number | null;
  }[];
}

/** A lot found at the bench: of what, and about how much is in it. */
export class FoundLotDoor {
  @Id() material!: string;
  @NumberBetween(0.001, MOST_GRAMS) quantityG!: number;
  @OrNull() @Text(LONGEST.short) code!: string | null;
}

export interface FoundLot {
  material: string;
  quantityG: number;
  code: string | null;
}

class TakenDoor {
  @Id() material!: string;
  @OrNull() @Id() lot!: string | null;
  @NumberBetween(0.001, MOST_GRAMS) massG!: number;
  @Clearable() @Text(LONGEST.line) despite?: string | null;
}

/** Lots that one lot is made of; nobody weighs more into one vessel. */
const MOST_TAKEN = 200;

/** A lot that is made of lots. */
export class MadeLotDoor {
  @OrNull() @Text(LONGEST.short) code!: string | null;
  @NotEmpty('Name at least one thing that went in.')
  @ListOf(() => TakenDoor, MOST_TAKEN)
  of!: TakenDoor[];
  @OrNull() @Day() bestBefore!: string | null;
}

export interface MadeLot {
  /** Numbered as the maker does where null. */
  code: string | null;
  /** `lot`: null where it comes from no lot, as water from the tap. `despite`: why it is taken though something speaks against it. */
  of: { material: string; lot: string | null; massG: number; despite?: string | null }[];
  bestBefore: string | null;
}
