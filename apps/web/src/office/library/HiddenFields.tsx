import { Checkbox } from 'antd';
import type { TimerKind } from '@water-clock/core';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { say } from '@water-clock/core';

interface Props {
  readonly document: TimerKind;
  readonly change: (document: TimerKind) => void;
}

/** What a kind's panel hides, as the bench timer needs it. */
export function HiddenFields({ document, change }: Props) {
  const { hidden = {}, ...rest } = document;
  const { programsAbove, laterStarts = false } = hidden;
  const set = (above: number | null, later: boolean) => {
    const next = {
      ...(above === null ? {} : { programsAbove: above }),
      ...(later ? { laterStarts: true } : {}),
    };
    change(Object.keys(next).length === 0 ? rest : { ...rest, hidden: next });
    return null;
  };
  return (
    <div className="tiles fill of-150">
      <NumberField
        label={say`Programs shown before the others are opened`}
        least={1}
        most={25}
        empty={say`all`}
        value={programsAbove ?? null}
        commit={(value) => set(value, laterStarts)}
      />
      <Checkbox
        className="check"
        checked={laterStarts}
        onChange={({ target }) => set(programsAbove ?? null, target.checked)}
      >{say`a start time shows only after the one before it is set`}</Checkbox>
    </div>
  );
}
