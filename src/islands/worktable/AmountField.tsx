import { useEffect, useId, useRef, useState } from 'react';
import type { Amount } from '../../core/formula/types';
import { readAmount, writeAmount } from '../../core/quantities/amount';

interface Props {
  label: string;
  amount: Amount;
  /** A fault the reckoning found with this line, if any. */
  fault?: string;
  onChange: (amount: Amount) => void;
  /** Tells the worktable that what stands here cannot be read. */
  onFault: (message: string | null) => void;
}

/** An amount in the maker's own unit. What cannot be read stays in the field with the reason under it. */
export function AmountField({ label, amount, fault, onChange, onFault }: Props) {
  const [text, setText] = useState(() => writeAmount(amount));
  const [unread, setUnread] = useState<string | null>(null);
  const typed = useRef<Amount>(amount);
  const errorId = useId();

  useEffect(() => {
    if (typed.current.value === amount.value && typed.current.unit === amount.unit) return;
    typed.current = amount;
    setText(writeAmount(amount));
    setUnread(null);
    onFault(null);
    // Only a change from outside (undo, a fix applied) rewrites the field.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [amount.value, amount.unit]);

  const read = (next: string) => {
    setText(next);
    const reading = readAmount(next, amount.unit);
    const message = reading.ok ? null : reading.message;
    setUnread(message);
    onFault(message);
    if (!reading.ok) return;
    typed.current = reading.amount;
    onChange(reading.amount);
  };

  const shown = unread ?? fault;
  return (
    <div className="relative">
      <input
        className="field w-full tabular-nums"
        aria-label={label}
        aria-invalid={shown ? true : undefined}
        aria-describedby={shown ? errorId : undefined}
        inputMode="text"
        autoComplete="off"
        spellCheck={false}
        value={text}
        onChange={(event) => read(event.target.value)}
        onBlur={() => !unread && setText(writeAmount(amount))}
      />
      {shown && (
        <p id={errorId} role="alert" className="mt-0.5 text-[0.82rem] leading-tight text-madder">
          {shown}
        </p>
      )}
    </div>
  );
}
