import { kindLine, say } from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';

interface Props {
  readonly label: string;
  /** Id of a kind in the library, or another option. */
  readonly value: string;
  /** Kinds and other options. */
  readonly options: readonly (readonly [id: string, words: string])[];
  readonly pick: (id: string) => void;
}

/** A choice of timer kinds, each with what it can do in a line below its name. */
export function KindSelect(props: Props) {
  const kinds = useLibrary('kinds');
  return (
    <SelectField
      {...props}
      describe={(id) => {
        const found = kinds.data?.find((one) => one.id === id);
        return found ? kindLine(found.document) : '';
      }}
    />
  );
}

/** How many stations of a timer are in use. */
export function InUseField({
  value,
  most,
  set,
}: {
  readonly value: number;
  readonly most: number;
  readonly set: (count: number | null) => void;
}) {
  return (
    <NumberField
      label={say`Stations in use`}
      least={1}
      most={most}
      value={value}
      commit={(count) => {
        set(count);
        return null;
      }}
    />
  );
}
