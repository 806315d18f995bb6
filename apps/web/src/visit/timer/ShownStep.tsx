import { lazy } from 'react';
import { monthOf, type Survey } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { TimerView } from '../../data/api/timers.ts';
import type { Snapshot } from '../../data/editor/editing.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { Programs } from '../programs/Programs.tsx';
import { STRIP_STEPS } from '../steps/steps.ts';
import { StepView } from './StepView.tsx';
import type { StripView } from './useStripView.ts';
import type { Dates, TimerFacts } from './useTimerFacts.ts';

// Loaded when needed.
export const clockPanel = () => import('../timerKind/ClockPanel.tsx');
export const settingsPanel = () => import('../settings/SettingsPanel.tsx');
const ClockPanel = lazy(clockPanel);
const SettingsPanel = lazy(settingsPanel);

function clockAsFound({ device }: Survey) {
  const { clockShown: shown, clockReally: really } = device ?? {};
  return shown === undefined || really === undefined ? null : { shown, really };
}

interface Props {
  readonly shown: string;
  readonly timer: TimerView;
  readonly snapshot: Snapshot;
  readonly editor: TimerEditor;
  readonly dates: Dates;
  readonly view: StripView;
  readonly facts: TimerFacts;
}

/** The step at this address, with or without the strip above. */
export function ShownStep({ shown, timer, snapshot, editor, dates, view, facts }: Props) {
  const { clock } = usePreferences();
  const { plan, settled, survey } = snapshot;
  const { now, today } = dates;
  const { whatIf, setWhatIf } = view;
  switch (shown) {
    case '':
      return (
        <Programs
          snapshot={snapshot}
          editor={editor}
          today={today}
          brief={facts.brief}
          letter={view.program}
          setLetter={view.setProgram}
        />
      );
    case 'settings':
      return (
        <SettingsPanel
          plan={settled}
          survey={survey}
          editor={editor}
          now={now}
          month={monthOf(today)}
        />
      );
    case 'clock':
      return (
        <ClockPanel
          plan={plan}
          now={now}
          changes={facts.changes}
          clock={clock}
          ahead={whatIf.ahead}
          setAhead={(ahead) => setWhatIf({ ...whatIf, ahead })}
          asFound={clockAsFound(survey)}
          keep={(clockShown, clockReally) =>
            editor.commit({
              type: 'note',
              fields: { device: { ...survey.device, clockShown, clockReally } },
            })
          }
        />
      );
    default:
      return STRIP_STEPS.includes(shown) ? null : (
        <StepView
          shown={shown}
          version={snapshot.version}
          timerId={timer.id}
          site={timer.site}
          plan={settled}
          survey={survey}
          editor={editor}
          today={today}
          now={now}
          {...facts.visit}
        />
      );
  }
}
