import { useId } from 'react';
import benchStyles from '../../ui/bench.module.css';

/** A number typed at the bench, with its name over it and what is wrong with it below. */
export function BenchField({
  label,
  value,
  fault = null,
  onChange,
}: {
  label: string;
  value: string;
  /** What is wrong with it, in words. */
  fault?: string | null;
  onChange: (text: string) => void;
}) {
  const faultId = useId();
  return (
    <div>
      <label className="block">
        <span className="eyebrow block text-base">{label}</span>
        <input
          className={benchStyles.benchField}
          inputMode="decimal"
          value={value}
          aria-invalid={fault ? true : undefined}
          aria-describedby={fault ? faultId : undefined}
          onChange={(event) => onChange(event.target.value)}
        />
      </label>
      {fault && (
        <p id={faultId} role="alert" className="text-madder">
          {fault}
        </p>
      )}
    </div>
  );
}
