import { useState } from 'react';
import { MONTH_WORDS } from '../../ui/words';

interface Props {
  label: string;
  /** YYYY-MM; null where not stated. */
  value: string | null;
  onChange: (month: string | null) => void;
}

const YEARS_AHEAD = 12;

/** A month of a year, both out of lists. */
export function MonthField({ label, value, onChange }: Props) {
  const [year, month] = value?.split('-') ?? ['', ''];
  const [chosen, setChosen] = useState({ year: year!, month: month! });
  const set = (part: Partial<typeof chosen>) => {
    const next = { ...chosen, ...part };
    setChosen(next);
    onChange(next.year && next.month ? `${next.year}-${next.month}` : null);
  };
  const first = Number(year) || new Date().getFullYear();
  const years = Array.from({ length: YEARS_AHEAD }, (_, at) => String(first - 1 + at));
  return (
    <fieldset>
      <legend className="eyebrow">{label}</legend>
      <select
        className="field"
        aria-label="Month"
        value={chosen.month}
        onChange={(event) => set({ month: event.target.value })}
      >
        <option value="">month</option>
        {MONTH_WORDS.map((word, at) => (
          <option key={word} value={String(at + 1).padStart(2, '0')}>
            {word}
          </option>
        ))}
      </select>
      <select
        className="field"
        aria-label="Year"
        value={chosen.year}
        onChange={(event) => set({ year: event.target.value })}
      >
        <option value="">year</option>
        {years.map((one) => (
          <option key={one} value={one}>
            {one}
          </option>
        ))}
      </select>
    </fieldset>
  );
}
