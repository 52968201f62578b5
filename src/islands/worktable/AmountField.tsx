import type { Amount } from '../../core/formula/types';
import { readAmount, writeAmount } from '../../core/quantities/amount';
import { ReadField } from '../../ui/ReadField';

interface Props {
  label: string;
  amount: Amount;
  /** A fault the reckoning found with this line, if any. */
  fault?: string;
  onChange: (amount: Amount) => void;
  onFault: (message: string | null) => void;
}

const isSame = (a: Amount, b: Amount) => a.value === b.value && a.unit === b.unit;

/** An amount in the maker's own unit. */
export function AmountField({ label, amount, fault, onChange, onFault }: Props) {
  const read = (text: string) => {
    const reading = readAmount(text, amount.unit);
    return reading.ok ? { ok: true as const, value: reading.amount } : reading;
  };
  return (
    <ReadField
      label={label}
      value={amount}
      read={read}
      write={writeAmount}
      isSame={isSame}
      fault={fault}
      onChange={onChange}
      onFault={onFault}
    />
  );
}
