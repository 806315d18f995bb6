import { SelectField } from './SelectField.tsx';

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly words: Readonly<Record<T, string>>;
  readonly commit: (value: T) => void;
}

/** A choice of a few things, each in words. */
export function Choice<T extends string>({ label, value, words, commit }: Props<T>) {
  return (
    <SelectField
      label={label}
      value={value}
      // The cast holds because the options are the names themselves.
      options={(Object.keys(words) as T[]).map((one) => [one, words[one]] as const)}
      pick={commit}
    />
  );
}
