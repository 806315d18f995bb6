/** As found and key-in, line by line: nothing counts as seen that no one looked at, an adjusted page keeps what was typed, closing asks. */
import './patience.ts';
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { useSyncExternalStore } from 'react';
import {
  EMPTY_SURVEY,
  emptyPlan,
  isRoster,
  panelLines,
  TIMER_KINDS,
  unknownPhases,
  WEEKDAYS,
  type Plan,
  type RulesEdition,
  type Survey,
} from '@water-clock/core';
import type { TimerEditor } from '../src/data/editor/editor.ts';
import { RosterEditor } from '../src/office/library/RosterEditor.tsx';
import { noteAsPlanned } from '../src/visit/shared/looked.ts';
import { panelNow } from '../src/visit/shared/panel.ts';
import { PanelField } from '../src/visit/found/PanelField.tsx';
import { editorAlone } from './editorAlone.ts';

afterEach(cleanup);

const DAY = 86_400;
const NOW = 20_984 * DAY + 6 * 3600;
const kind = TIMER_KINDS.find(({ dialect }) => dialect?.runPage === 'adjusted');
if (!kind) throw new Error('no kind with adjusted minutes');
const plan: Plan = {
  ...emptyPlan(kind),
  settings: { seasonalPercent: 130 },
  stations: [{ number: 1 }],
  programs: [
    {
      letter: 'A',
      starts: ['04:00'],
      runs: [{ station: 1, seconds: 600 }],
      days: { rule: 'interval', everyDays: 3, firstDate: '2027-06-15' },
    },
  ],
};
const survey: Survey = { ...EMPTY_SURVEY, visit: { began: '2027-06-15T06:00' } };

const editorOf = () => editorAlone({ plan, survey });

/** Some panel lines, at 130 percent. */
function Lines({ editor, ids }: { readonly editor: TimerEditor; readonly ids: readonly string[] }) {
  const { settled, survey: noted } = useSyncExternalStore(editor.subscribe, editor.snapshot);
  const now = panelNow(settled, NOW, { clock: '24', order: 'day-month', kind: null });
  const { visit } = noted;
  if (!visit) return null;
  return panelLines(settled, now)
    .filter(({ id }) => ids.includes(id))
    .map((line) => (
      <PanelField
        key={line.id}
        line={line}
        plan={settled}
        visit={visit}
        editor={editor}
        now={now}
        shownAt={130}
      />
    ));
}

describe('a line of the panel', () => {
  const shown = (...ids: readonly string[]) => {
    const editor = editorOf();
    render(<Lines editor={editor} ids={ids} />);
    return editor;
  };
  const field = () => screen.getByRole<HTMLInputElement>('textbox');
  const enter = (text?: string) => {
    if (text !== undefined) fireEvent.change(field(), { target: { value: text } });
    fireEvent.keyDown(field(), { key: 'Enter' });
  };
  const secondsOf = (editor: TimerEditor) =>
    editor.snapshot().settled.programs[0]?.runs[0]?.seconds;

  test('is empty until somebody looks; Enter says that it stands as planned, and changes nothing', () => {
    const editor = shown('start.A.1');
    expect([field().value, field().placeholder]).toEqual(['', '4:00']);
    expect(field().getAttribute('aria-label')).toMatch(/not checked yet, planned 4:00/);
    fireEvent.blur(field());
    expect(editor.snapshot().survey.visit?.panel?.looked).toBeUndefined();
    enter();
    expect(field().value).toBe('4:00');
    expect(editor.snapshot().survey.visit?.panel?.looked).toEqual(['start.A.1']);
    expect(editor.snapshot().settled).toEqual(plan);
  });

  test('of an adjusted run stays as typed, with what was entered beside it, any number of times', () => {
    const editor = shown('run.A.1');
    // Ten minutes at 130 percent.
    expect(field().placeholder).toBe('0:13');
    for (let n = 0; n < 3; n++) {
      enter('0:13');
      expect(field().value).toBe('0:13');
      expect(secondsOf(editor)).toBe(600);
      expect(screen.getByText(/entered: 10 min/)).toBeTruthy();
    }
    enter('0:26');
    expect(field().value).toBe('0:26');
    expect(secondsOf(editor)).toBe(1200);
  });

  test('that no entered run gives says so, and is kept as typed', () => {
    const editor = shown('run.A.1');
    // One minute at 130 percent is 1:18, shown as 0:01; two are 0:03; none gives 0:02.
    enter('0:02');
    expect(
      screen.getByText(/This timer never shows a run time of 0:02 at 130 %. It is saved/),
    ).toBeTruthy();
    expect(field().value).toBe('0:02');
    expect(secondsOf(editor)).toBe(600);
    expect(editor.snapshot().survey.visit?.panel?.shown).toEqual([
      { line: 'run.A.1', text: '0:02' },
    ]);
    enter('0:13');
    expect(editor.snapshot().survey.visit?.panel?.shown).toBeUndefined();
  });

  test('of a rain delay is never read as off', () => {
    const editor = shown('rain-delay');
    enter('on');
    expect(screen.getByText(/Type the time left/)).toBeTruthy();
    expect(editor.snapshot().survey.visit?.panel?.looked).toBeUndefined();
    enter('48 h');
    expect(editor.snapshot().settled.settings.wateringResumes).toBe('2027-06-17T06:00');
  });

  test('of an interval that nobody can read is unknown until it is read', () => {
    const editor = shown('phase.A');
    const unknown = () => {
      const { settled, survey: noted } = editor.snapshot();
      return unknownPhases(settled, noted);
    };
    enter('?');
    expect(unknown()).toEqual(['A']);
    enter('1');
    expect(unknown()).toEqual([]);
    expect(editor.snapshot().settled.programs[0]?.days).toMatchObject({ firstDate: '2027-06-16' });
  });

  test('several at once stand as planned, each once', () => {
    const editor = editorOf();
    const lines = panelLines(
      plan,
      panelNow(plan, NOW, { clock: '24', order: 'day-month', kind: null }),
    ).slice(0, 3);
    noteAsPlanned(editor, lines);
    noteAsPlanned(editor, lines.slice(0, 2));
    expect(editor.snapshot().survey.visit?.panel?.looked).toEqual(lines.map(({ id }) => id));
  });
});

test('ten digits and two supplies are entered with forty presses at most, by hand and by keys', () => {
  let edition: RulesEdition = { from: '2026-01-01', clauses: [] };
  let presses = 0;
  const page = () => (
    <RosterEditor
      edition={edition}
      kind="digits"
      change={(next) => {
        edition = next;
      }}
    />
  );
  const { rerender } = render(page());
  const press = (within_: HTMLElement, name: string | RegExp) => {
    presses++;
    fireEvent.click(within(within_).getByRole('button', { name }));
    rerender(page());
  };
  const grid = (name: RegExp) => screen.getByRole('grid', { name });
  press(document.body, 'Clear all days');
  const DAYS = [
    ['Mon', 'Thu'],
    ['Tue', 'Fri'],
    ['Wed', 'Sat'],
  ] as const;
  // Digits in blocks, as in rosters: the first row of a block by hand, the rest filled down.
  [0, 3, 6].forEach((from, i) => {
    for (const day of WEEKDAYS.map(
      (_, at) => ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'][at],
    ))
      if (i > 0 && DAYS[i - 1]?.some((one) => one === day))
        press(grid(/any water/), `Ends in ${from}, ${day}`);
    for (const day of DAYS[i] ?? []) press(grid(/any water/), `Ends in ${from}, ${day}`);
    press(grid(/any water/), `Copy ends in ${from} to the rows below`);
  });
  press(document.body, /^Different days for .*bore/);
  // A bore has one day more.
  for (const digit of [0, 3, 6]) {
    press(grid(/bore/), `Ends in ${digit}, Sun`);
    press(grid(/bore/), `Copy ends in ${digit} to the rows below`);
    if (digit < 6) {
      const below = DAYS[digit / 3 + 1] ?? [];
      for (const day of [...(DAYS[digit / 3] ?? []), 'Sun', ...below])
        press(grid(/bore/), `Ends in ${digit + 3}, ${day}`);
    }
  }
  expect(presses).toBeLessThanOrEqual(40);
  expect(isRoster(edition, 'digits')).toBe(true);
  const daysOf = (digit: number, bore: boolean) =>
    edition.clauses.find(
      ({ when }) =>
        (when?.supplies?.includes('bore') ?? false) === bore && when?.lastDigits?.includes(digit),
    )?.weekdays;
  expect(daysOf(1, false)).toEqual(['mon', 'thu']);
  expect(daysOf(5, false)).toEqual(['tue', 'fri']);
  expect(daysOf(9, false)).toEqual(['wed', 'sat']);
  expect(daysOf(9, true)).toEqual(['wed', 'sat', 'sun']);
  // By keyboard: an arrow moves, Ctrl-D copies the row above.
  const cell = within(grid(/bore/)).getByRole('button', { name: 'Ends in 0, Mon' });
  cell.focus();
  fireEvent.keyDown(cell, { key: 'ArrowDown' });
  expect(document.activeElement?.getAttribute('aria-label')).toBe('Ends in 1, Mon');
});
