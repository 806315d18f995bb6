import { Checkbox } from 'antd';
import { WEEKDAYS, type BriefRules, say } from '@water-clock/core';
import { NumberField } from './NumberField.tsx';
import { WeekdayButtons } from './WeekdayButtons.tsx';
import { WindowsEditor } from './WindowsEditor.tsx';
import { SelectField } from './SelectField.tsx';

interface Props {
  /** Prefix of accessible names, on a page with several. */
  readonly name: string;
  readonly rules: BriefRules;
  /** The weekdays are chosen elsewhere. */
  readonly withoutDays?: boolean;
  /** Core's refusal as a message, or null if the change was made. */
  readonly change: (rules: BriefRules) => string | null;
}

/** What the rules allow a site: days, dates, hours, days a week, drip. */
export function AllowedFields({ name, rules, withoutDays = false, change }: Props) {
  /** Empty fields are left out, so that equal rules give equal documents. */
  const set = (more: { readonly [K in keyof BriefRules]?: BriefRules[K] | undefined }) => {
    const next = { ...rules, ...more };
    const { weekdays, parity, noWaterWindows = [], mostDaysPerWeek, dripExempt } = next;
    return change({
      ...(weekdays && weekdays.length < 7 ? { weekdays } : {}),
      ...(parity ? { parity } : {}),
      ...(noWaterWindows.length > 0 ? { noWaterWindows } : {}),
      ...(mostDaysPerWeek === undefined ? {} : { mostDaysPerWeek }),
      ...(dripExempt === true ? { dripExempt } : {}),
    });
  };
  return (
    <>
      {!withoutDays && (
        <div className="labelled">
          {say`Allowed on`}
          <WeekdayButtons
            label={say`${name}: allowed weekdays`}
            timer={{}}
            pressed={rules.weekdays ?? WEEKDAYS}
            commit={(weekdays) => void set({ weekdays })}
          />
        </div>
      )}
      <div className="tiles fill of-150">
        <SelectField
          label={say`Dates`}
          value={rules.parity ?? ''}
          options={[
            ['', say`any`] as const,
            ['odd', say`odd dates only`] as const,
            ['even', say`even dates only`] as const,
          ]}
          pick={(value) =>
            void set({ parity: value === 'odd' || value === 'even' ? value : undefined })
          }
        />
        <NumberField
          label={say`Most days a week`}
          least={1}
          most={7}
          value={rules.mostDaysPerWeek ?? null}
          empty={say`no limit`}
          commit={(value) => set({ mostDaysPerWeek: value ?? undefined })}
        />
      </div>
      <WindowsEditor
        label={say`${name}: no-water hours`}
        timer={{}}
        windows={rules.noWaterWindows ?? []}
        commit={(windows) => set({ noWaterWindows: windows ?? [] })}
      />
      <Checkbox
        className="check"
        checked={rules.dripExempt ?? false}
        onChange={(event) => void set({ dripExempt: event.target.checked })}
      >{say`drip exempt`}</Checkbox>
    </>
  );
}
