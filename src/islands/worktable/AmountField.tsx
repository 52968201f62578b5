import { useState } from 'react';
import type { Amount, Measure } from '../../core/formula/types';
import { readAmount, writeAmount } from '../../core/quantities/amount';
import type { Unit } from '../../core/quantities/units';
import { habits, rememberScentPercents } from '../../ui/habits';
import { ReadField } from '../../ui/ReadField';

interface Props {
  label: string;
  amount: Amount;
  /** A fault the reckoning found with this line, if any. */
  fault?: string;
  /** A bare percent of a scent may be of the fats or of the whole: it is asked once. */
  isScent?: boolean;
  /** `how` it is measured where the words say so. */
  onChange: (amount: Amount, how?: Measure) => void;
  onFault: (message: string | null) => void;
}

const isSame = (a: Amount, b: Amount) => a.value === b.value && a.unit === b.unit;

const PERCENTS = [
  ['%fats', 'of the fats'],
  ['%pour', 'of the whole pour'],
] as const;

/** Asks what a bare percent is of; the answer holds for the whole house from then on. */
function OfWhat({ amount, onSay }: { amount: Amount; onSay: (amount: Amount) => void }) {
  return (
    <p role="status" className="mt-1.5 text-[0.9rem] leading-tight">
      {amount.value} % of what?
      {PERCENTS.map(([unit, words]) => (
        <button
          key={unit}
          type="button"
          className="block cursor-pointer text-left text-ultra underline underline-offset-2"
          onClick={() => {
            onSay({ value: amount.value, unit });
            void rememberScentPercents(unit);
          }}
        >
          {words}
        </button>
      ))}
    </p>
  );
}

/** What the field says, as it is to be taken: an amount, how it is measured, whether its percent is open. */
function readHere(text: string, unit: Unit, isScent: boolean) {
  const reading = readAmount(text, unit);
  if (!reading.ok) return reading;
  const known = isScent && reading.isPercentOpen ? habits().scentPercents : null;
  const value = known ? { ...reading.amount, unit: known } : reading.amount;
  const isOpen = isScent && reading.isPercentOpen && known === null;
  return { ok: true as const, value: { ...value, how: reading.measuredBy, openOver: isOpen ? unit : null } };
}

/** `openOver`: the unit that stood here before, where what the percent is of is open. */
type Read = Amount & { how?: Measure; openOver?: Unit | null };

/** An amount in the maker's own unit. */
export function AmountField({ label, amount, fault, isScent = false, onChange, onFault }: Props) {
  /** The unit that stood here before a bare percent was typed, while that is asked about; null while it is not. */
  const [before, setBefore] = useState<Unit | null>(null);
  return (
    <>
      <ReadField<Read>
        label={label}
        value={amount}
        read={(text, now) => readHere(text, before ?? now.unit, isScent)}
        write={writeAmount}
        isSame={isSame}
        fault={fault}
        onChange={({ how, openOver = null, ...said }) => {
          setBefore(openOver);
          onChange(said, how);
        }}
        onFault={onFault}
      />
      {before !== null && amount.unit === '%fats' && (
        <OfWhat
          amount={amount}
          onSay={(said) => {
            setBefore(null);
            onChange(said);
          }}
        />
      )}
    </>
  );
}
