interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
  isNumber?: boolean;
}

/** One line of text under its label. */
export function TextField({ label, value, onChange, isNumber = false }: Props) {
  return (
    <label className="block">
      <span className="eyebrow block">{label}</span>
      <input
        className="field w-full"
        inputMode={isNumber ? 'decimal' : 'text'}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
