/** The door of changes: each kind has its own fields. */
import { CHANGE_KINDS, SWAP_BY, type Change, type ChangeKind } from '../../core/change/types';
import { MARKETS, type RequestError } from '../../core/formula/types';
import { DeclarableDoor, LimitDoor } from './assessment-request';
import { PaperDoor } from './cupboard';
import { Day, Id, ListOf, LONGEST, Name, Nested, OneOf, Optional, OrNull, Text, Values } from './fields';
import { FirstRevision } from './revision';
import { checkShape } from './shape';
import type { Door } from './structure';

const MOST_RULES = 5000;
const MOST_BARS = 10_000;
const isId = (value: unknown) => typeof value === 'string' && value.length > 0 && value.length <= 200;

class KindDoor {
  @OneOf(CHANGE_KINDS, 'unknown-kind') kind!: string;
}

class PaperChangeDoor extends KindDoor {
  @Id() material!: string;
  @Nested(() => PaperDoor) paper!: PaperDoor;
  @Optional() @Id() inbox?: string;
}

export class EditionDoor {
  @Name('the edition') edition!: string;
  @Day() dated!: string;
  @Name('its title', LONGEST.line) title!: string;
  @ListOf(() => LimitDoor, MOST_RULES) limits!: LimitDoor[];
  @ListOf(() => DeclarableDoor, MOST_RULES) declarables!: DeclarableDoor[];
}

class EditionNamedDoor extends KindDoor {
  @Name('the edition') edition!: string;
}

class EditionInlineDoor extends KindDoor {
  @Nested(() => EditionDoor) edition!: EditionDoor;
}

class DayChangeDoor extends KindDoor {
  @Day() onDate!: string;
}

class SwapDoor extends KindDoor {
  @Id() from!: string;
  @Id() to!: string;
  @OneOf(SWAP_BY) by!: string;
  @Optional() @Values(MOST_BARS, 'not-an-id', 'Give ids of bars.', isId) products?: string[];
}

class LotChangeDoor extends KindDoor {
  @Id() lot!: string;
  @OrNull() @Text(LONGEST.line) quarantine!: string | null;
}

class LimitChangeDoor extends KindDoor {
  @Nested(() => LimitDoor) limit!: LimitDoor;
}

class MarketDoor extends KindDoor {
  @Id() product!: string;
  @OneOf(MARKETS) market!: string;
  @Optional() @Day() firstPlacedOn?: string;
}

const DOORS: Record<ChangeKind, (change: { edition?: unknown }) => Door> = {
  paper: () => PaperChangeDoor,
  edition: ({ edition }) => (typeof edition === 'object' ? EditionInlineDoor : EditionNamedDoor),
  day: () => DayChangeDoor,
  swap: () => SwapDoor,
  lot: () => LotChangeDoor,
  limit: () => LimitChangeDoor,
  market: () => MarketDoor,
};

/** A change as it came in; faults with the path to their field. */
export function checkChange(
  input: unknown,
): { ok: true; change: Change } | { ok: false; errors: RequestError[] } {
  const isObject = (value: unknown): value is Record<string, unknown> =>
    typeof value === 'object' && value !== null && !Array.isArray(value);
  const within = isObject(input) ? input.change : undefined;
  if (!isObject(within))
    return {
      ok: false,
      errors: [{ path: 'change', code: 'not-an-object', message: 'Give the change as an object.' }],
    };
  const { kind } = within;
  const door =
    typeof kind === 'string' && Object.hasOwn(DOORS, kind) ? DOORS[kind as ChangeKind](within) : KindDoor;
  const shaped = checkShape<Change>(door, within);
  if (shaped.ok) return { ok: true, change: shaped.value };
  return {
    ok: false,
    errors: shaped.errors.map((error) => ({ ...error, path: `change${error.path && `.${error.path}`}` })),
  };
}

/** Accepting says something or nothing. */
export class AcceptDoor {
  @Optional() @Text() note?: string;
}

/** Declining says why; a task's end says what was done. */
export class DeclineDoor {
  @Name('the reason', LONGEST.text) reason!: string;
}

export class DoneDoor {
  @Name('what was done', LONGEST.text) note!: string;
}

/** A task made by hand, of what falls due. */
export class NewTaskDoor {
  @Name('the task', LONGEST.line) words!: string;
  @OrNull() @Day() dueOn!: string | null;
}

/** A note at a rule; empty takes it away. */
export class RuleNoteDoor {
  @FirstRevision() revision!: number;
  @Id() id!: string;
  @Text(LONGEST.line) text!: string;
}
