import { useState } from 'react';
import { Input } from 'antd';

interface Props {
  readonly label: string;
  readonly unit?: string;
  /** Null: not set. */
  readonly value: number | null;
  readonly least?: number;
  readonly most?: number;
  /** What an empty field means; without it, the field needs a number. */
  readonly empty?: string;
  readonly decimal?: boolean;
  readonly className?: string;
  /** Its name among the fields of a card, to find the next one. */
  readonly field?: string;
  /** Called when the enter key has made the number. */
  readonly entered?: (input: HTMLInputElement) => void;
  /** The refusal in words, or null where it is made. */
  readonly commit: (value: number | null) => string | null;
}

/** A number that is made when the field is left; its fault shows at the field. */
export function NumberField(props: Props) {
  const { label, unit, value, least = 0, most, empty, decimal = false, className, commit } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const refusal = (text: string): string | null => {
    if (text === '' && empty !== undefined) return value === null ? null : commit(null);
    const plain = least < 0 ? text.replace(/^[-−]/, '') : text;
    const size = (decimal ? /^\d{1,6}([.,]\d+)?$/ : /^\d{1,6}$/).test(plain)
      ? Number(plain.replace(',', '.'))
      : NaN;
    const number = plain === text ? size : -size;
    const allowed = `${least} ${most === undefined ? 'or more' : `to ${most}`}`;
    if (Number.isNaN(number) || number < least || (most !== undefined && number > most))
      return `"${text}" is not possible here; allowed: ${allowed}${empty === undefined ? '' : ', or empty'}.`;
    return number === value ? null : commit(number);
  };
  /** Whether there is nothing wrong with what was typed. */
  const finish = (): boolean => {
    if (typed === null) return true;
    const refused = refusal(typed.trim());
    setFault(refused);
    if (refused === null) setTyped(null);
    return refused === null;
  };
  return (
    <label className={`labelled ${className ?? ''}`}>
      <span>
        {label}
        {unit && ` (${unit})`}
      </span>
      <Input
        data-field={props.field}
        inputMode={decimal ? 'decimal' : 'numeric'}
        value={typed ?? value ?? ''}
        placeholder={empty}
        aria-invalid={fault !== null}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && finish() && props.entered) {
            // Otherwise the end of this keystroke would press whatever has the focus next.
            event.preventDefault();
            props.entered(event.currentTarget);
          }
          if (event.key !== 'Escape') return;
          setTyped(null);
          setFault(null);
        }}
        status={fault !== null ? 'error' : ''}
      />
      {fault && <span className="fault">{fault}</span>}
    </label>
  );
}
