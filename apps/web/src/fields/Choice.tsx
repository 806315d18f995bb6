interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly words: Readonly<Record<T, string>>;
  readonly commit: (value: T) => void;
}

/** A choice of a few things, each in words. */
export function Choice<T extends string>({ label, value, words, commit }: ChoiceProps<T>) {
  return (
    <label className="labelled">
      {label}
      <select
        className="field"
        value={value}
        // The cast holds because the options are the names themselves.
        onChange={(event) => commit(event.target.value as T)}
      >
        {(Object.keys(words) as T[]).map((one) => (
          <option key={one} value={one}>
            {words[one]}
          </option>
        ))}
      </select>
    </label>
  );
}
