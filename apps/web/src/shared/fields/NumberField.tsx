import { useState } from 'react';
import { TypedInput } from './TypedInput.tsx';
import { say } from '@water-clock/core';

/** Where a field sets no limit of its own. */
const MOST = 999_999;

interface Props {
  readonly label: string;
  readonly unit?: string;
  /** Null: not set. */
  readonly value: number | null;
  readonly least?: number;
  readonly most?: number;
  /** Meaning of an empty field; without it, a number is required. */
  readonly empty?: string;
  readonly decimal?: boolean;
  readonly className?: string;
  /** Name among the fields of a card, to find the next one. */
  readonly field?: string;
  /** Called after Enter has made the number. */
  readonly entered?: (input: HTMLInputElement) => void;
  /** Core's refusal as a message, or null if the change was made. */
  readonly commit: (value: number | null) => string | null;
}

/** A number, made when the field is left; its fault shows at the field. */
export function NumberField(props: Props) {
  const {
    label,
    unit,
    value,
    least = 0,
    most = MOST,
    empty,
    decimal = false,
    className,
    commit,
  } = props;
  const [fault, setFault] = useState<string | null>(null);
  const read = (typed: string): number | null | undefined => {
    const text = typed.trim();
    if (text === '') return empty === undefined ? undefined : null;
    const plain = least < 0 ? text.replace(/^[-−]/u, '') : text;
    if (!(decimal ? /^\d{1,6}([.,]\d+)?$/u : /^\d{1,6}$/u).test(plain)) return undefined;
    const size = Number(plain.replace(',', '.'));
    const number = plain === text ? size : -size;
    return number < least || number > most ? undefined : number;
  };
  const refusal = (typed: string) =>
    empty === undefined
      ? say`“${typed}” cannot be used here. Enter a number from ${least} to ${most}.`
      : say`“${typed}” cannot be used here. Enter a number from ${least} to ${most}, or leave this empty.`;
  return (
    <label className={`labelled ${className ?? ''}`}>
      <span>
        {label}
        {unit && ` (${unit})`}
      </span>
      <TypedInput<number | null>
        inputMode={decimal ? 'decimal' : 'numeric'}
        placeholder={empty}
        field={props.field}
        entered={props.entered}
        value={value}
        read={read}
        write={(number) => String(number ?? '')}
        fault={(typed) => refusal(typed.trim())}
        tell={setFault}
        commit={commit}
      />
      {fault !== null && <span className="fault">{fault}</span>}
    </label>
  );
}
