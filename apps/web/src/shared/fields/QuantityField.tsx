import { shownIn, typedIn, unitWords, type Quantity } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { NumberField } from './NumberField.tsx';

interface Props {
  readonly label: string;
  readonly quantity: Quantity;
  /** In the units of the calculation; null: not known. */
  readonly value: number | null;
  readonly empty?: string;
  readonly field?: string;
  readonly entered?: (input: HTMLInputElement) => void;
  readonly commit: (value: number | null) => string | null;
}

/** A quantity in the site's units; keeps what was typed. */
export function QuantityField({ label, quantity, value, empty, field, entered, commit }: Props) {
  const { units } = usePreferences();
  return (
    <NumberField
      label={label}
      unit={unitWords(units, quantity)}
      decimal
      value={value === null ? null : Number(shownIn(units, quantity, value))}
      {...(empty === undefined ? {} : { empty })}
      {...(field === undefined ? {} : { field })}
      {...(entered === undefined ? {} : { entered })}
      commit={(typed) => commit(typed === null ? null : typedIn(units, quantity, typed))}
    />
  );
}
