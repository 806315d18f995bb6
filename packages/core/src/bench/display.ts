/** What the panel shows: the time, a page with its value, or a manual run about to start. */
import { assertDefined } from '../document/assertDefined.ts';
import { say } from '../language/say.ts';
import type { PanelNow } from '../panel/line.ts';
import { panelText, type PanelStyle, type PanelValue } from '../panel/value.ts';
import type { Plan } from '../plan/plan.ts';
import { programsByLetter } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import { adjustedSeconds, effectivePercent } from '../plan/program.ts';
import type { Press } from '../simulatedTimer/events.ts';
import type { SimulatedTimer } from '../simulatedTimer/simulatedTimer.ts';
import { monthOf } from '../time/calendar.ts';
import { headingsOf, type Page } from './pages.ts';
import type { ByHand, Display } from './state.ts';

export interface HandChoice {
  readonly words: string;
  readonly press: (seconds: number) => Press;
}

/** @param letters programs that the panel shows */
export function handChoices(
  plan: Plan,
  { dialect }: PanelStyle,
  letters: readonly string[],
): readonly HandChoice[] {
  return [
    ...plan.stations.map(({ number }) => ({
      words: say`station ${number}`,
      press: (seconds: number): Press => ({ do: 'manual', station: number, seconds }),
    })),
    {
      words: say`all stations`,
      press: (seconds: number): Press => ({ do: 'manual', seconds }),
    },
    ...programsByLetter(plan)
      .filter(({ letter }) => letters.includes(letter))
      .map(({ letter }) => ({
        words: say`program ${programLabel(letter, dialect)}`,
        press: (): Press => ({ do: 'manual', program: letter }),
      })),
  ];
}

/** The selected choice; selection wraps around. */
export const chosenByHand = (choices: readonly HandChoice[], { what }: ByHand): HandChoice =>
  assertDefined(choices[what % choices.length], 'a choice of what runs by hand');

type Shown = Pick<Display, 'left' | 'right' | 'big' | 'unit'>;

/** Display of a manual run about to start. */
export function byHandShown(choices: readonly HandChoice[], byHand: ByHand): Shown {
  const choice = chosenByHand(choices, byHand);
  const press = choice.press(0);
  const isProgram = press.do === 'manual' && 'program' in press;
  return byHand.page === 'what' || isProgram
    ? { left: say`manual`, right: say`station`, big: choice.words, unit: '' }
    : {
        left: say`manual`,
        right: choice.words,
        big: `0:${String(byHand.minutes).padStart(2, '0')}`,
        unit: '',
      };
}

/** The idle panel: day, time, and what the timer is doing. */
export function timeShown(
  timer: SimulatedTimer,
  style: PanelStyle,
  { today, secondOfDay }: PanelNow,
): Shown {
  const { plan, clock } = timer;
  const [open] = timer.openValves;
  const { resumes } = timer.snapshot();
  const isDelayed = resumes !== null && clock !== null && clock < resumes;
  const day = panelText({ kind: 'weekday', weekday: (((today + 3) % 7) + 7) % 7 }, style);
  const byDate = (style.dialect.clock ?? 'date') === 'date';
  const idle = plan.settings.mode === 'off' ? 'resting' : isDelayed ? say`rain delay` : '';
  return {
    left: byDate ? `${day} ${panelText({ kind: 'date', day: today }, style)}` : day,
    right: open ? say`station ${open.station}, ${clockLength(open.left)} left` : idle,
    ...apart(panelText({ kind: 'time', second: Math.floor(secondOfDay / 60) * 60 }, style)),
  };
}

/** A page with its value. */
export const pageShown = (
  page: Page,
  plan: Plan,
  style: PanelStyle,
  today: PanelNow['today'],
): Shown => ({
  ...headingsOf(page, plan, style.dialect),
  ...apart(panelText(shownOf(page, plan, style, today), style)),
});

/** Some kinds show run times at the current percent. */
function shownOf(
  { address, value }: Page,
  plan: Plan,
  { dialect }: PanelStyle,
  today: PanelNow['today'],
): PanelValue {
  if (value.kind !== 'run' || address.of !== 'run' || dialect.runPage !== 'adjusted') return value;
  const program = plan.programs.find(({ letter }) => letter === address.program);
  const percent = program ? effectivePercent(plan, program, monthOf(today)) : 100;
  return { kind: 'run', seconds: adjustedSeconds(value.seconds, percent, plan.timer.seasonal) };
}

const clockLength = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;

/** `3:10 PM` as `3:10` and `pm`, `100 %` as `100` and `%`. */
function apart(text: string): { big: string; unit: string } {
  const [, big, unit] = /^(\d\S*) ([AP]M|%|H|DAYS?)$/.exec(text) ?? [];
  return big === undefined ? { big: text, unit: '' } : { big, unit: (unit ?? '').toLowerCase() };
}
