/** Some of a few, in the order they have among all. */
export function Choices<T extends string>({
  legend,
  options,
  words,
  chosen,
  onChoose,
  children,
}: {
  legend: string;
  options: readonly T[];
  words: Record<T, string>;
  chosen: readonly T[];
  onChoose: (chosen: T[]) => void;
  children?: string;
}) {
  const turned = (one: T) =>
    options.filter((other) => (other === one ? !chosen.includes(other) : chosen.includes(other)));
  return (
    <fieldset>
      <legend className="eyebrow">{legend}</legend>
      <div className="flex flex-wrap gap-x-4">
        {options.map((one) => (
          <label key={one} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-ultra"
              checked={chosen.includes(one)}
              onChange={() => onChoose(turned(one))}
            />
            {words[one]}
          </label>
        ))}
      </div>
      {children && <p className="text-soft">{children}</p>}
    </fieldset>
  );
}
