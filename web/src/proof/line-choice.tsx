/** One choice in a line of choices: its word before it, and for the ear what is chosen. */
export function LineChoice<K extends string>({
  word,
  label,
  value,
  options,
  onChoose,
  widthCh,
}: {
  word?: string;
  label: string;
  value: K;
  options: readonly (readonly [key: K, name: string])[];
  onChoose: (key: K) => void;
  /** At most so wide, in letters. */
  widthCh?: number;
}) {
  const select = (
    <select
      aria-label={label}
      className="min-h-8 rounded-[3px] border border-edge bg-field px-2"
      style={widthCh === undefined ? undefined : { maxWidth: `${widthCh}ch` }}
      value={value}
      onChange={(e) => onChoose(e.target.value as K)}
    >
      {options.map(([key, name]) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
    </select>
  );
  if (!word) return select;
  return (
    <label className="flex items-center gap-2">
      <span className="text-quiet">{word}</span>
      {select}
    </label>
  );
}

/** A registry as options. */
export const optionsOf = <K extends string>(names: Readonly<Record<K, string>>) =>
  Object.entries(names) as [key: K, name: string][];
