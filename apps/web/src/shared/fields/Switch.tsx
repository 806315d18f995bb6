import { Segmented } from 'antd';

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [value: T, words: string])[];
  readonly pick: (value: T) => void;
}

/** A choice of two or three visible options. */
export function Switch<T extends string>({ label, value, options, pick }: Props<T>) {
  return (
    <div className="labelled">
      <span aria-hidden>{label}</span>
      <Segmented<T>
        block
        aria-label={label}
        value={value}
        options={options.map(([one, words]) => ({ value: one, label: words }))}
        onChange={pick}
      />
    </div>
  );
}
