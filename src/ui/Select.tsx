interface SelectProps<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  /** Of one width, whatever stands in it: for lists that the browser fills in later. */
  isEven?: boolean;
}

/** A labelled choice out of a list. */
export function Select<T extends string>({
  label,
  value,
  options,
  onChange,
  isEven = false,
}: SelectProps<T>) {
  return (
    <label className="max-w-full">
      <span className="eyebrow block">{label}</span>
      <select
        className={`field max-w-full ${isEven ? 'w-64' : ''}`}
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
      >
        {options.map(([id, words]) => (
          <option key={id} value={id}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
