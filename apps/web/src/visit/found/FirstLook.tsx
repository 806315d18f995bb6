import { useMemo } from 'react';
import { Button } from 'antd';
import { CheckOutlined } from '@ant-design/icons';
import { useNavigate } from 'react-router';
import {
  attempt,
  FIRST_SHOWN,
  factoryPlan,
  panelLines,
  powerOf,
  phasesAfterLoss,
  powerAsks,
  powerAskWords,
  verdictOf,
  type FirstShown,
  type Plan,
  type PowerAsk,
  type Sign,
  type TimerSpeech,
  type Visit,
  say,
} from '@water-clock/core';
import { Chips } from '../../shared/fields/Chips.tsx';
import { useKind } from '../timerKind/useKind.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { noteAsPlanned } from '../shared/looked.ts';
import { panelNow } from '../shared/panel.ts';

const SHOWS: Readonly<Record<FirstShown, string>> = {
  steady: say`A steady clock`,
  flashing: say`A flashing or nonsense clock`,
  blank: say`Nothing`,
};
const SIGN_OF: Partial<Record<FirstShown, Sign>> = {
  flashing: 'flashing-clock',
  blank: 'blank-screen',
};
const OF_POWER: readonly Sign[] = ['flashing-clock', 'blank-screen'];

/** What the display does before anyone touches it; after a power cut, the questions that come first. */
export function FirstLook(props: StepProps & { readonly visit: Visit }) {
  const { plan, survey, visit, editor, now, today, timerId } = props;
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const navigate = useNavigate();
  const factory = useMemo(() => factoryPlan(plan, kind), [plan, kind]);
  const asks = powerAsks(plan, survey, factory, powerOf(survey, kind));
  const first = asks.findIndex((ask) => !('isDone' in ask && ask.isDone));
  const speech: TimerSpeech = { plan, on: today, clock, order };
  const pick = (display: FirstShown | null) => {
    const others = (visit.signs ?? []).filter((sign) => !OF_POWER.includes(sign));
    const sign = display === null ? undefined : SIGN_OF[display];
    const signs = sign ? [...others, sign] : others;
    const unknownPhases = sign ? phasesAfterLoss(plan) : null;
    editor.commit({
      type: 'together',
      changes: [
        { type: 'note-visit', fields: { display, signs: signs.length > 0 ? signs : null } },
        ...(unknownPhases ? [{ type: 'note', fields: { unknownPhases } } as const] : []),
      ],
    });
  };
  const cameBack = (found: Plan) => {
    const { site: _site, ...bare } = found;
    editor.commit({ type: 'replace-plan', plan: bare });
    noteAsPlanned(
      editor,
      panelLines(found, panelNow(plan, now, { clock, order, kind })).filter(
        ({ setting }) => setting !== 'clock',
      ),
    );
    editor.commit({ type: 'note-visit', fields: { factoryBack: true } });
  };
  const answers = (ask: PowerAsk) => {
    if (ask.what === 'clock')
      return (
        <Button onClick={() => void navigate(`/timers/${timerId}/clock`)}>
          {ask.isDone ? say`Clock recorded` : say`Record the clock`}
        </Button>
      );
    if (ask.what !== 'factory') return null;
    if (ask.isDone)
      return (
        <span>
          {visit.factoryBack
            ? say`Yes. Recorded as factory settings.`
            : say`No. Its settings are intact.`}
        </span>
      );
    return (
      <span className="row near">
        <Button onClick={() => cameBack(ask.factory)}>{say`Yes, it came back`}</Button>
        <Button
          onClick={() => editor.commit({ type: 'note-visit', fields: { factoryBack: false } })}
        >{say`No, its settings are intact`}</Button>
        <FactoryVerdict factory={ask.factory} today={today} />
      </span>
    );
  };
  return (
    <section className="part stack near" aria-label={say`First look`}>
      <Chips
        label={say`What does it show before anyone touches it?`}
        options={FIRST_SHOWN.map((one) => [one, SHOWS[one]] as const)}
        value={visit.display ?? null}
        pick={pick}
      />
      {asks.length > 0 && (
        <ol className="list ruled" aria-label={say`After a power cut`}>
          {asks.map((ask, i) => {
            const { question, why } = powerAskWords(ask, speech);
            return (
              <li key={ask.what}>
                {'isDone' in ask && ask.isDone ? <CheckOutlined aria-label={say`Done`} /> : null}
                <span className="stack near">
                  <span className={i === first ? 'bold' : ''}>
                    {i === first ? say`First: ${question}` : question}
                  </span>
                  <span className="soft">{why}</span>
                  {answers(ask)}
                </span>
              </li>
            );
          })}
        </ol>
      )}
    </section>
  );
}

/** Until someone has looked, either may be in the timer: the verdict for the other one. */
function FactoryVerdict({ factory, today }: { readonly factory: Plan; readonly today: number }) {
  const found = useMemo(() => attempt(() => verdictOf(factory, today)), [factory, today]);
  if (!found.ok) return null;
  return (
    <span className="soft">
      {found.value.verdict === 'overlap'
        ? say`Until then, either may be set. The verdict above is for the planned settings. The factory program overlaps.`
        : say`Until then, either may be set. The verdict above is for the planned settings. The factory program has no overlap.`}
    </span>
  );
}
