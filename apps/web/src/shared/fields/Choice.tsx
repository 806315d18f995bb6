import { SelectField } from './SelectField.tsx';

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly words: Readonly<Record<T, string>>;
  readonly commit: (value: T) => void;
}

/** A choice among a few options. */
export function Choice<T extends string>({ label, value, words, commit }: Props<T>) {
  return (
    <SelectField
      label={label}
      value={value}
      // Safe cast: the options are the names themselves.
      options={(Object.keys(words) as T[]).map((one) => [one, words[one]] as const)}
      pick={commit}
    />
  );
}
