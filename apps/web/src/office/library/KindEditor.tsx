import { Checkbox, Input } from 'antd';
import {
  applyChange,
  emptyPlan,
  PANEL_SETTINGS,
  PANEL_WORDS,
  POWER_WORDS,
  POWERS,
  type EpochDay,
  type PanelSetting,
  type TimerKind,
  say,
} from '@water-clock/core';
import { PhotoRow } from '../../shared/photos/PhotoRow.tsx';
import { HiddenFields } from './HiddenFields.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { RainDelayFields } from './RainDelayFields.tsx';
import { TimerAbilities } from '../../visit/timerKind/TimerAbilities.tsx';

interface Props {
  readonly document: TimerKind;
  readonly change: (document: TimerKind) => void;
  readonly today: EpochDay;
}

const NOTES = [
  ['note', say`How to recognise it`],
  ['hides', say`What its panel can hide`],
  ['manual', say`How a manual run works`],
  ['restore', say`What save and restore keeps`],
] as const;

/** A timer kind: what it can do, and what someone in front of it must know. */
export function KindEditor({ document, change, today }: Props) {
  const { timer, reach = [], signs = [], factory = [] } = document;
  const plan = emptyPlan(timer);
  /** Abilities are edited as on a timer, but nothing is sent; the document is saved as a whole. */
  const editor = {
    commit: (made: Parameters<typeof applyChange>[1] | { readonly type: string }) => {
      // Safe cast: the abilities make only plan changes.
      const applied = applyChange(plan, made as Parameters<typeof applyChange>[1]);
      if (!applied.ok) return applied.faults;
      change({ ...document, timer: applied.value.plan.timer });
      return [];
    },
  };
  const setReach = (setting: PanelSetting, more: { line?: string; photo?: string | null }) => {
    const before = reach.find((howToReach) => howToReach.setting === setting);
    const line = more.line ?? before?.line ?? '';
    const photo = more.photo === undefined ? before?.photo : (more.photo ?? undefined);
    const next = { setting, line, ...(photo === undefined ? {} : { photo }) };
    change({
      ...document,
      reach: PANEL_SETTINGS.flatMap((one) =>
        one === setting
          ? line === '' && photo === undefined
            ? []
            : [next]
          : reach.filter((each) => each.setting === one),
      ),
    });
  };
  return (
    <div className="library-form stack column">
      {NOTES.map(([key, label]) => (
        <label key={key} className="labelled">
          {label}
          <Input.TextArea
            rows={2}
            maxLength={2000}
            value={document[key] ?? ''}
            onChange={({ target: { value } }) => {
              const { [key]: _before, ...rest } = document;
              change(value === '' ? rest : { ...rest, [key]: value });
            }}
          />
        </label>
      ))}
      <Checkbox
        className="check"
        checked={document.twoWire ?? false}
        onChange={({ target }) => {
          const { twoWire: _before, ...rest } = document;
          change(target.checked ? { ...rest, twoWire: true } : rest);
        }}
      >{say`its stations are on two wires with decoders`}</Checkbox>
      <SelectField
        label={say`Power`}
        value={document.power ?? ''}
        options={[
          ['', say`differs, or not known`] as const,
          ...POWERS.map((one) => [one, POWER_WORDS[one]] as const),
        ]}
        pick={(value) => {
          const { power: _before, ...rest } = document;
          const power = POWERS.find((one) => one === value);
          change(power ? { ...rest, power } : rest);
        }}
      />
      <Checkbox
        className="check"
        checked={document.inletScreen ?? false}
        onChange={({ target }) => {
          const { inletScreen: _before, ...rest } = document;
          change(target.checked ? { ...rest, inletScreen: true } : rest);
        }}
      >{say`it screws onto a tap and has an inlet screen`}</Checkbox>
      <HiddenFields document={document} change={change} />
      <RainDelayFields document={document} change={change} />
      <fieldset className="aside stack">
        <legend>{say`Phone script for restoring saved settings, one step per line; {A} is its name for program A`}</legend>
        <Input.TextArea
          rows={4}
          aria-label={say`Steps of a restore by phone`}
          value={(document.restoreSteps ?? []).join('\n')}
          onChange={({ target: { value } }) => {
            const { restoreSteps: _before, ...rest } = document;
            const steps = value.split('\n').slice(0, 12);
            change(value === '' ? rest : { ...rest, restoreSteps: steps });
          }}
        />
      </fieldset>
      <fieldset className="aside stack">
        <legend>{say`How to reach each setting on this timer`}</legend>
        {PANEL_SETTINGS.map((setting) => {
          const found = reach.find((howToReach) => howToReach.setting === setting);
          return (
            <div key={setting} className="stack near">
              <label className="labelled">
                {PANEL_WORDS[setting]}
                <Input
                  maxLength={200}
                  value={found?.line ?? ''}
                  onChange={({ target: { value } }) => setReach(setting, { line: value })}
                />
              </label>
              {found && found.line !== '' && (
                <PhotoRow
                  label={say`Photo of ${PANEL_WORDS[setting]}`}
                  most={1}
                  photos={found.photo ? [found.photo] : []}
                  set={([photo]) => setReach(setting, { photo: photo ?? null })}
                />
              )}
            </div>
          );
        })}
      </fieldset>
      <fieldset className="aside stack">
        <legend>{say`Lights and signs`}</legend>
        {[...signs, { sign: '', means: '' }].map((one, i) => {
          const put = (more: Partial<typeof one>) => {
            const next = signs.slice();
            next[i] = { ...one, ...more };
            change({
              ...document,
              signs: next.filter(({ sign, means }) => sign !== '' || means !== ''),
            });
          };
          return (
            <div key={i} className="tiles fill of-150">
              <Input
                aria-label={say`Sign ${i + 1}`}
                placeholder={say`what is seen`}
                maxLength={200}
                value={one.sign}
                onChange={({ target: { value } }) => put({ sign: value })}
              />
              <Input
                aria-label={say`Meaning of sign ${i + 1}`}
                placeholder={say`what it means`}
                maxLength={200}
                value={one.means}
                onChange={({ target: { value } }) => put({ means: value })}
              />
            </div>
          );
        })}
      </fieldset>
      <fieldset className="aside stack">
        <legend>{say`Factory settings`}</legend>
        <div className="tiles fill of-150">
          {PANEL_SETTINGS.map((setting) => (
            <label key={setting} className="labelled">
              {PANEL_WORDS[setting]}
              <Input
                maxLength={200}
                value={factory.find((one) => one.setting === setting)?.value ?? ''}
                onChange={({ target: { value } }) =>
                  change({
                    ...document,
                    factory: PANEL_SETTINGS.flatMap((one) =>
                      one === setting
                        ? value === ''
                          ? []
                          : [{ setting, value }]
                        : factory.filter((each) => each.setting === one),
                    ),
                  })
                }
              />
            </label>
          ))}
        </div>
      </fieldset>
      <h2>{say`Capabilities`}</h2>
      <TimerAbilities plan={plan} editor={editor} today={today} />
    </div>
  );
}
