import { useId } from 'react';
import { Select } from 'antd';
import { say } from '@water-clock/core';

interface Props {
  readonly label: string;
  readonly value: string;
  /** The selected item, if not among the results. */
  readonly valueWords?: string;
  readonly options: readonly (readonly [value: string, words: string])[];
  /** Searches by what is typed. */
  readonly seek: (text: string) => void;
  readonly pick: (value: string) => void;
}

/** A choice among possibly thousands of items, searched by the server. */
export function SoughtField({ label, value, valueWords, options, seek, pick }: Props) {
  const id = useId();
  const isAmong = options.some(([one]) => one === value);
  return (
    <div className="labelled">
      <label htmlFor={id}>{label}</label>
      <Select
        id={id}
        className="select"
        value={value || null}
        showSearch={{ filterOption: false, onSearch: seek }}
        options={[
          ...(value && !isAmong && valueWords ? [[value, valueWords] as const] : []),
          ...options,
        ].map(([one, words]) => ({ value: one, label: words }))}
        notFoundContent={say`No matches`}
        virtual={false}
        onChange={pick}
      />
    </div>
  );
}
