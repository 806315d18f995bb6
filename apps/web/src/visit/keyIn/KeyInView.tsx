import { useState } from 'react';
import { Button, Checkbox } from 'antd';
import {
  clockReading,
  attempt,
  brokenWeekdays,
  dateWords,
  factoryPlan,
  faultSentence,
  keyInBase,
  keyInLines,
  KEY_IN_SCOPES,
  listed,
  nameOfWeekday,
  type KeyIn,
  type KeyInScope,
  say,
} from '@water-clock/core';
import { useAwake } from '../../shared/hand/useAwake.ts';
import { useDeviceSwitch } from '../../shared/hand/useDeviceSwitch.ts';
import { canSpeak } from '../../shared/hand/voice.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { useOpenFindings } from '../checks/checksContext.ts';
import { KeyInLines } from './KeyInLines.tsx';
import { NoVisit } from '../shared/NoVisit.tsx';
import { panelNow } from '../shared/panel.ts';
import { useKind } from '../timerKind/useKind.ts';
import './keyIn.css';

/** In a visit. */
const HOLDS = [
  say`One setting at a time, in this timer’s order and words`,
  say`What it showed before and what it should show now`,
  say`Read back: what you type from the display is compared`,
];

const SCOPE_WORDS: Record<KeyInScope, string> = {
  changes: say`Changes since as found`,
  everything: say`Everything`,
  factory: say`After a factory reset`,
};

/** Keying in a plan: one setting a line, in this timer's order and wording. */
export default function KeyInView(props: StepProps) {
  const { plan, survey, editor, now, site } = props;
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const { visit } = survey;
  const { rules } = useOpenFindings();
  const [aloud, setAloud] = useDeviceSwitch('read-aloud', false);
  const [fault, setFault] = useState<string | null>(null);
  useAwake(visit !== undefined);
  if (!visit)
    return (
      <div className="survey-view stack page-column">
        <NoVisit editor={editor} now={now} holds={HOLDS} />
      </div>
    );
  const panel = panelNow(plan, now, { clock, order, kind });
  const factory = factoryPlan(plan, kind);
  const scope: KeyInScope = visit.keyIn?.scope ?? (visit.asFound ? 'changes' : 'everything');
  const keyIn: KeyIn = visit.keyIn ?? { scope, ticked: [] };
  const set = (next: KeyIn) => {
    const faults = editor.commit({ type: 'note-visit', fields: { keyIn: next } });
    setFault(faults.length > 0 ? faults.map(faultSentence).join(' ') : null);
  };
  const base = keyInBase(plan, visit, kind);
  const clockIsRight = scope === 'changes' && clockReading(survey)?.ahead === 0;
  const reach = new Map((kind?.reach ?? []).map(({ setting, line }) => [setting, line]));
  const cautions = new Map(
    plan.programs.flatMap((program) => {
      const broken = brokenWeekdays(plan, program, rules);
      return broken.length === 0
        ? []
        : [
            [
              program.letter,
              say`The watering rules do not allow ${listed(broken.map(nameOfWeekday), 'or')}.`,
            ] as const,
          ];
    }),
  );
  const confirms = plan.timer.dialect?.confirms === true;
  const notLooked = scope === 'changes' ? (visit.asFound?.notLooked ?? []) : [];
  const worked = attempt(() => keyInLines(plan, base, panel, clockIsRight, notLooked));
  const scopes = KEY_IN_SCOPES.filter(
    (one) => (one !== 'factory' || factory) && (one !== 'changes' || visit.asFound),
  );
  return (
    <div className="survey-view stack page-column key-in">
      <h2 className="key-title">
        {say`Key in: ${site.name}, ${plan.timer.name}. ${SCOPE_WORDS[scope]}, ${dateWords(panel.today, null, order)}`}
      </h2>
      <div className="row">
        {scopes.length > 1 && (
          <SelectField<KeyInScope>
            label={say`Key in`}
            value={scope}
            options={scopes.map((one) => [one, SCOPE_WORDS[one]] as const)}
            pick={(next) => set({ ...keyIn, scope: next })}
          />
        )}
        <span className="key-acts row near">
          <Checkbox
            checked={keyIn.readsBack === true}
            onChange={({ target }) => set({ ...keyIn, readsBack: target.checked })}
          >{say`Read back`}</Checkbox>
          {canSpeak() && (
            <Checkbox
              checked={aloud}
              onChange={({ target }) => setAloud(target.checked)}
            >{say`Read aloud`}</Checkbox>
          )}
          <Button onClick={() => print()}>{say`Print`}</Button>
          {keyIn.ticked.length > 0 && (
            <Button
              type="text"
              onClick={() => set({ scope, ticked: [], readsBack: keyIn.readsBack === true })}
            >{say`Start again`}</Button>
          )}
        </span>
      </div>
      {fault !== null && (
        <p className="fault" role="alert">
          {say`Not recorded: ${fault}`}
        </p>
      )}
      {!worked.ok && <p className="fault">{worked.faults.map(faultSentence).join(' ')}</p>}
      {worked.ok && worked.value.length === 0 && (
        <p className="heavy">{say`Nothing differs, so there is nothing to key in.`}</p>
      )}
      {worked.ok && worked.value.length > 0 && (
        <KeyInLines
          lines={worked.value}
          keyIn={keyIn}
          now={panel}
          aloud={aloud}
          set={set}
          reach={reach}
          cautions={cautions}
          confirms={confirms}
        />
      )}
      {keyIn.readsBack === true && (
        <p className="soft key-hint">{say`Read back: type each setting from the timer’s display, not from this screen. Press Enter to check it.`}</p>
      )}
    </div>
  );
}
