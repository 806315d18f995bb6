import { useId, useRef, type KeyboardEvent } from 'react';
import { Button, Typography } from 'antd';

interface Props<T extends string | number> {
  readonly label: string;
  readonly options: readonly (readonly [value: T, words: string])[];
  readonly value: T | null;
  /** Null: the selected one was pressed again, so nothing is selected. */
  readonly pick: (value: T | null) => void;
  /** Moves to the next field of the card, if there is one. */
  readonly done?: (from: HTMLElement) => void;
  /** Copies this and the following fields from the previous station. */
  readonly same?: (from: HTMLElement) => void;
}

/**
 * A choice as a row of large buttons: press one, or type its digit to choose it and move to the next row. One tab stop; arrow keys move
 * within the row.
 */
export function Chips<T extends string | number>(props: Props<T>) {
  const { label, options, value, pick, done, same } = props;
  const id = useId();
  const group = useRef<HTMLDivElement>(null);
  const chosen = options.findIndex(([one]) => one === value);
  const focusAt = (at: number) =>
    group.current?.querySelectorAll('button')[(at + options.length) % options.length]?.focus();
  const onKeyDown = (event: KeyboardEvent<HTMLElement>, at: number) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const option = options[Number(event.key) - 1];
    if (/^[1-9]$/.test(event.key) && option) pick(option[0]);
    else if (event.key === '=' && same) same(event.currentTarget);
    else if (event.key === 'ArrowRight' || event.key === 'ArrowDown') {
      event.preventDefault();
      focusAt(at + 1);
      return;
    } else if (event.key === 'ArrowLeft' || event.key === 'ArrowUp') {
      event.preventDefault();
      focusAt(at - 1);
      return;
    } else return;
    event.preventDefault();
    if (event.key !== '=') done?.(event.currentTarget);
  };
  return (
    <div className="chips labelled">
      <span id={id}>{label}</span>
      <div ref={group} role="radiogroup" aria-labelledby={id} className="row near">
        {options.map(([one, words], i) => (
          <Button
            className="chip"
            key={one}
            role="radio"
            aria-checked={i === chosen}
            tabIndex={i === Math.max(0, chosen) ? 0 : -1}
            data-field={i === Math.max(0, chosen) ? label : undefined}
            onClick={() => pick(i === chosen ? null : one)}
            onKeyDown={(event) => onKeyDown(event, i)}
          >
            <Typography.Text keyboard aria-hidden>
              {i + 1}
            </Typography.Text>
            {words}
          </Button>
        ))}
      </div>
    </div>
  );
}

/** Moves the focus to the next field of the card, if there is one. */
export function focusNext(from: HTMLElement): void {
  const card = from.closest('[data-card]');
  if (!card) return;
  const fields = [...card.querySelectorAll<HTMLElement>('[data-field]')];
  const group = from.closest('[role="radiogroup"]') ?? from;
  const at = fields.findIndex((field) => field === from || group.contains(field));
  const next = fields[at + 1];
  next?.focus();
  if (next instanceof HTMLInputElement) next.select();
}
