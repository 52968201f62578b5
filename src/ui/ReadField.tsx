import { useEffect, useId, useRef, useState } from 'react';

type Reading<T> = { ok: true; value: T } | { ok: false; message: string };

interface Props<T> {
  label: string;
  value: T;
  read: (text: string) => Reading<T>;
  write: (value: T) => string;
  isSame: (a: T, b: T) => boolean;
  /** A fault found elsewhere with what stands here, if any. */
  fault?: string;
  className?: string;
  onChange: (value: T) => void;
  /** Tells that what stands here cannot be read, or can be again. */
  onFault: (message: string | null) => void;
}

/** A field that is read as it is typed. What cannot be read stays in it, with the reason under it. */
export function ReadField<T>({
  label,
  value,
  read,
  write,
  isSame,
  fault,
  className,
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

  // A field that goes (its line removed, or moved to another stage) holds nothing up any more.
  const tell = useRef(onFault);
  tell.current = onFault;
  useEffect(() => () => tell.current(null), []);

  const onText = (next: string) => {
    setText(next);
    const reading = read(next);
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
        onChange={(event) => onText(event.target.value)}
        onBlur={() => !unread && setText(write(value))}
      />
      {shown && (
        <p id={errorId} role="alert" className="mt-0.5 text-[0.82rem] leading-tight text-madder">
          {shown}
        </p>
      )}
    </div>
  );
}

interface NumberProps {
  label: string;
  value: number;
  least: number;
  most: number;
  unit: string;
  /** Only for screen readers, where a heading or the row says it already. */
  isLabelHidden?: boolean;
  onChange: (value: number) => void;
  onFault: (message: string | null) => void;
}

const DECIMALS = 4;
const same = (a: number, b: number) => a === b;
const write = (value: number) => String(Number(value.toFixed(DECIMALS)));

/** A plain number between two bounds, with its unit beside it. */
export function NumberField({
  label,
  value,
  least,
  most,
  unit,
  isLabelHidden = false,
  onChange,
  onFault,
}: NumberProps) {
  const read = (text: string): Reading<number> => {
    const number = Number(text.trim().replace(',', '.') || NaN);
    if (Number.isFinite(number) && number >= least && number <= most) return { ok: true, value: number };
    return { ok: false, message: `A number from ${least} to ${most}.` };
  };
  return (
    <div>
      {!isLabelHidden && (
        <span className="eyebrow block" aria-hidden="true">
          {label}
        </span>
      )}
      <div className="flex items-baseline gap-1">
        <ReadField
          label={label}
          value={value}
          read={read}
          write={write}
          isSame={same}
          className="w-16"
          onChange={onChange}
          onFault={onFault}
        />
        <span className="text-soft">{unit}</span>
      </div>
    </div>
  );
}
