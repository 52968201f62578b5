import { readNumber } from '../core/quantities/number';
import { useLatest } from './latest';
import { useEffect, useId, useRef, useState, type ReactNode } from 'react';

type Reading<T> = { ok: true; value: T } | { ok: false; message: string };

interface Props<T> {
  label: string;
  value: T;
  /** Reads what is typed, over what stood here until then. */
  read: (text: string, now: T) => Reading<T>;
  write: (value: T) => string;
  isSame: (a: T, b: T) => boolean;
  /** A fault found elsewhere with what stands here, if any. */
  fault?: string;
  className?: string;
  isDisabled?: boolean;
  onChange: (value: T) => void;
  /** Tells that what stands here cannot be read, or can be again. */
  onFault: (message: string | null) => void;
}

/** Once the hands rest so long, what the field says is what is held, milliseconds: a step may have been undone meanwhile. */
const SETTLED_MS = 2000;

/**
 * A field that is read as it is typed. What cannot be read stays in it, with the reason under it. The value may come
 * back a frame or two after it was typed: until then what was typed last counts.
 */
export function ReadField<T>({
  label,
  value,
  read,
  write,
  isSame,
  fault,
  className,
  isDisabled,
  onChange,
  onFault,
}: Props<T>) {
  const [text, setText] = useState(() => write(value));
  const [unread, setUnread] = useState<string | null>(null);
  const typed = useRef(value);
  const errorId = useId();

  useEffect(() => {
    if (isSame(typed.current, value)) return;
    typed.current = value;
    setText(write(value));
    setUnread(null);
    onFault(null);
  }, [value, isSame, write, onFault]);

  const held = useLatest(value);
  useEffect(() => {
    if (unread) return;
    const timer = setTimeout(() => {
      if (isSame(typed.current, held.current)) return;
      typed.current = held.current;
      setText(write(held.current));
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [text, unread, held, isSame, write]);

  // A field that goes (its line removed, or moved to another stage) holds nothing up any more.
  const tell = useLatest(onFault);
  useEffect(() => () => tell.current(null), [tell]);

  const onText = (next: string) => {
    setText(next);
    const reading = read(next, typed.current);
    const message = reading.ok ? null : reading.message;
    setUnread(message);
    onFault(message);
    if (!reading.ok) return;
    typed.current = reading.value;
    onChange(reading.value);
  };

  const shown = unread ?? fault;
  return (
    <div className={className}>
      <input
        className="field w-full tabular-nums"
        aria-label={label}
        aria-invalid={shown ? true : undefined}
        aria-describedby={shown ? errorId : undefined}
        autoComplete="off"
        spellCheck={false}
        value={text}
        disabled={isDisabled}
        onChange={(event) => onText(event.target.value)}
        onBlur={() => !unread && setText(write(typed.current))}
      />
      {shown && (
        <p id={errorId} role="alert" className="mt-0.5 text-[0.82rem] leading-tight text-madder">
          {shown}
        </p>
      )}
    </div>
  );
}

interface LabelProps {
  label: string;
  unit: string;
  /** Only for screen readers, where a heading or the row says it already. */
  isLabelHidden?: boolean;
}

interface NumberProps extends LabelProps {
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
  onFault: (message: string | null) => void;
}

const DECIMALS = 4;
const same = (a: number, b: number) => a === b;
const write = (value: number) => String(Number(value.toFixed(DECIMALS)));

function readBetween(text: string, least: number, most: number): Reading<number> {
  const number = readNumber(text);
  if (number >= least && number <= most) return { ok: true, value: number };
  return { ok: false, message: `A number from ${least} to ${most}.` };
}

function Beside({ label, unit, isLabelHidden, children }: LabelProps & { children: ReactNode }) {
  return (
    <div>
      {!isLabelHidden && (
        <span className="eyebrow block" aria-hidden="true">
          {label}
        </span>
      )}
      <div className="flex items-baseline gap-1">
        {children}
        <span className="text-soft">{unit}</span>
      </div>
    </div>
  );
}

/** A plain number between two bounds, with its unit beside it. */
export function NumberField({ label, value, least, most, unit, isLabelHidden, ...told }: NumberProps) {
  return (
    <Beside label={label} unit={unit} isLabelHidden={isLabelHidden}>
      <ReadField
        label={label}
        value={value}
        read={(text) => readBetween(text, least, most)}
        write={write}
        isSame={same}
        className="w-16"
        {...told}
      />
    </Beside>
  );
}

interface OptionalProps extends LabelProps {
  value: number | null;
  least: number;
  most: number;
  isDisabled?: boolean;
  onChange: (value: number | null) => void;
  onFault: (message: string | null) => void;
}

const writeOptional = (value: number | null) => (value === null ? '' : write(value));
const sameOptional = (a: number | null, b: number | null) => a === b;

/** A number that may be left out. */
export function OptionalNumberField({ label, least, most, unit, isLabelHidden, ...field }: OptionalProps) {
  return (
    <Beside label={label} unit={unit} isLabelHidden={isLabelHidden}>
      <ReadField<number | null>
        label={label}
        read={(text) => (text.trim() === '' ? { ok: true, value: null } : readBetween(text, least, most))}
        write={writeOptional}
        isSame={sameOptional}
        className="w-20"
        {...field}
      />
    </Beside>
  );
}
