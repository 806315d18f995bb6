/** Views made for touch: one setting at a time, station cards, painted hours, dragged bars, dots on a scale. */
import './patience.ts';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { useState, useSyncExternalStore, type ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import {
  EMPTY_SURVEY,
  emptyPlan,
  keyInLines,
  PROGRAM_LOOKS,
  programOf,
  TIMER_KINDS,
  type KeyIn,
  type NoWaterWindow,
  type Plan,
  type Survey,
} from '@water-clock/core';
import { useAwake } from '../src/shared/hand/useAwake.ts';
import { PreferencesProvider } from '../src/app/platform/preferences.tsx';
import { applyTheme } from '../src/app/platform/theme.ts';
import { HoursGrid } from '../src/visit/settings/HoursGrid.tsx';
import { MonthBars } from '../src/visit/settings/MonthBars.tsx';
import { KeyInLines } from '../src/visit/keyIn/KeyInLines.tsx';
import { panelNow } from '../src/visit/shared/panel.ts';
import { TestList } from '../src/visit/leave/TestList.tsx';
import { editorAlone } from './editorAlone.ts';

const DAY = 86_400;
/** Monday 1 March 2027, 6:00. */
const TODAY = 20_878;
const NOW = TODAY * DAY + 6 * 3600;
const [, , kind] = TIMER_KINDS;
if (!kind) throw new Error('there is a third kind');
const plan: Plan = {
  ...emptyPlan(kind),
  settings: { seasonalPercent: 100 },
  stations: [{ number: 1, name: 'Front' }, { number: 2 }, { number: 3 }],
  programs: [
    {
      letter: 'A',
      starts: ['04:00'],
      runs: [{ station: 1, seconds: 600 }],
      days: { rule: 'daily' },
    },
  ],
};
const survey: Survey = { ...EMPTY_SURVEY, visit: { began: '2027-03-01T06:00' } };

const editorOf = () => editorAlone({ plan, survey });

const shown = (content: ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <PreferencesProvider>
        <MemoryRouter>{content}</MemoryRouter>
      </PreferencesProvider>
    </QueryClientProvider>,
  );

beforeEach(() => {
  localStorage.clear();
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(cleanup);

/** jsdom has no pointer events. */
const pointer = (on: Element, type: string, clientX: number) => {
  const event = new MouseEvent(type, { bubbles: true, button: 0, clientX, clientY: 10 });
  Object.assign(event, { isPrimary: true, pointerType: 'touch' });
  fireEvent(on, event);
};

describe('key in', () => {
  const now = panelNow(plan, NOW, { clock: '24', order: 'day-month', kind: null });
  const worked = keyInLines(plan, null, now, true, []);

  function Card({ readsBack = false, aloud = false, lines = worked.slice(0, 4) }) {
    const [keyIn, set] = useState<KeyIn>({ scope: 'everything', ticked: [], readsBack });
    return (
      <>
        <KeyInLines
          lines={lines}
          keyIn={keyIn}
          now={now}
          aloud={aloud}
          set={set}
          reach={new Map()}
          cautions={new Map()}
          confirms={false}
        />
        <output>{JSON.stringify(keyIn)}</output>
      </>
    );
  }
  const current = () => document.querySelector('.key-line-next .key-name')?.textContent;
  const done = () => fireEvent.click(screen.getByRole('button', { name: /^Done: / }));
  const kept = () => JSON.parse(screen.getAllByRole('status').at(-1)?.textContent ?? '') as KeyIn;
  const names = worked.map(({ name }) => name);

  test('one setting has the turn; done goes on, and one that is done is taken back by a press or a swipe', () => {
    shown(<Card />);
    expect(current()).toBe(names[0]);
    done();
    done();
    expect(current()).toBe(names[2]);
    expect(screen.getByText('2 of 4 done')).toBeTruthy();
    const swipe = (from: number, to: number) => {
      const card = document.querySelector('.key-line-next');
      if (!card) throw new Error('no setting has the turn');
      pointer(card, 'pointerdown', from);
      pointer(card, 'pointerup', to);
    };
    swipe(50, 300);
    expect(current()).toBe(names[1]);
    swipe(300, 50);
    expect(current()).toBe(names[2]);
    // Too short for a swipe.
    swipe(100, 60);
    expect(current()).toBe(names[2]);
  });

  test('read back: what is wrong is told and counted once, a later setting can take the turn', () => {
    shown(<Card readsBack />);
    const field = () => screen.getByPlaceholderText('Type what it shows now');
    const shows = (text: string) => {
      fireEvent.change(field(), { target: { value: text } });
      fireEvent.keyDown(field(), { key: 'Enter', keyCode: 13 });
    };
    // Done without a reading says what is missing.
    done();
    expect(kept().ticked).toEqual([]);
    expect(screen.getByRole('alert').textContent).toBe(
      'Type what the timer’s display shows first.',
    );
    shows('nonsense');
    shows('other nonsense');
    expect(kept().slips).toBe(1);
    expect(screen.getByRole('alert').textContent).not.toBe('');
    fireEvent.click(screen.getByRole('button', { name: new RegExp(`^${names[2]}`) }));
    expect(current()).toBe(names[2]);
    expect(kept().ticked).toEqual([]);
  });

  test('all of a program is ticked at once, but not where each line is to be read back', () => {
    shown(<Card readsBack lines={worked} />);
    const all = () => screen.queryByRole('button', { name: 'All of A' });
    expect(all()).toBeNull();
    cleanup();
    shown(<Card lines={worked} />);
    const button = all();
    if (!button) throw new Error('nothing ticks a program');
    fireEvent.click(button);
    const own = worked.filter((line) => programOf(line) === 'A');
    expect(kept().ticked).toEqual(own.flatMap(({ ticks }) => ticks));
  });

  test('read aloud says the setting that has the turn', () => {
    const said: string[] = [];
    Object.assign(globalThis, {
      SpeechSynthesisUtterance: class {
        constructor(readonly text: string) {}
      },
      speechSynthesis: {
        speak: ({ text }: { text: string }) => said.push(text),
        cancel: () => undefined,
      },
    });
    shown(<Card aloud />);
    done();
    expect(said).toHaveLength(2);
    expect(said[1]).toMatch(new RegExp(`^${names[1]}\\. `));
  });
});

test('the screen stays on while a step asks for it, and not longer', async () => {
  const held = { release: jest.fn(() => Promise.resolve()) };
  const request = jest.fn(() => Promise.resolve(held));
  Object.assign(navigator, { wakeLock: { request } });
  function Step() {
    useAwake();
    return null;
  }
  const { unmount } = render(<Step />);
  await act(() => Promise.resolve());
  expect(request).toHaveBeenCalledTimes(1);
  expect(held.release).not.toHaveBeenCalled();
  unmount();
  expect(held.release).toHaveBeenCalledTimes(1);
});

describe('hours without water', () => {
  function Grid({ first }: { readonly first: readonly NoWaterWindow[] }) {
    const [windows, set] = useState(first);
    return (
      <>
        <HoursGrid plan={plan} today={TODAY} windows={windows} commit={(next) => set(next ?? [])} />
        <output>{JSON.stringify(windows)}</output>
      </>
    );
  }
  const windows = () => JSON.parse(screen.getByRole('status').textContent) as NoWaterWindow[];
  const cell = (name: string) => screen.getByRole('gridcell', { name });
  const key = (name: string, more: object = {}) =>
    fireEvent.keyDown(document.activeElement ?? document.body, { key: name, ...more });

  test('Space changes an hour, Shift with the arrows paints on, over days too', () => {
    shown(<Grid first={[]} />);
    act(() => cell('Mon 9:00 am').focus());
    key(' ');
    expect(windows()).toEqual([{ from: '09:00', to: '10:00', weekdays: ['mon'] }]);
    key('ArrowDown', { shiftKey: true });
    key('ArrowRight', { shiftKey: true });
    expect(windows()).toEqual([
      { from: '09:00', to: '11:00', weekdays: ['mon'] },
      { from: '10:00', to: '11:00', weekdays: ['tue'] },
    ]);
    expect(cell('Tue 10:00 am').getAttribute('aria-selected')).toBe('true');
    key(' ');
    key('ArrowLeft', { shiftKey: true });
    expect(windows()).toEqual([{ from: '09:00', to: '10:00', weekdays: ['mon'] }]);
  });

  test('a press paints and takes back; hours that are only in part dry say so', () => {
    shown(<Grid first={[{ from: '06:30', to: '08:00', weekdays: ['wed'] }]} />);
    const half = cell('Wed 6:00 am, no water for part of it');
    const press = (on: HTMLElement) => {
      pointer(on, 'pointerdown', 0);
      pointer(on, 'pointerup', 0);
    };
    press(half);
    expect(windows()).toEqual([{ from: '06:00', to: '08:00', weekdays: ['wed'] }]);
    press(cell('Wed 7:00 am'));
    press(cell('Wed 6:00 am'));
    expect(windows()).toEqual([]);
  });
});

test('a month’s bar moves by the timer’s step, and not below its lowest percent', () => {
  const monthly = Array.from({ length: 12 }, () => 100);
  const set = jest.fn((_: unknown) => null);
  const { seasonal } = kind;
  const timer = { ...kind, seasonal: { ...seasonal, byMonth: true, scope: 'timer' as const } };
  shown(
    <MonthBars
      plan={{ ...plan, timer, settings: { monthlyPercent: monthly } }}
      month={3}
      set={set}
    />,
  );
  const march = screen.getByRole('slider', { name: 'March, percent' });
  fireEvent.keyDown(march, { key: 'ArrowUp', keyCode: 38, which: 38 });
  fireEvent.keyUp(march, { key: 'ArrowUp', keyCode: 38, which: 38 });
  expect(set).toHaveBeenCalledWith({
    monthlyPercent: monthly.map((one, i) => (i === 2 ? one + seasonal.stepPercent : one)),
  });
  fireEvent.keyDown(march, { key: 'Home', keyCode: 36, which: 36 });
  fireEvent.keyUp(march, { key: 'Home', keyCode: 36, which: 36 });
  expect(set).toHaveBeenLastCalledWith({
    monthlyPercent: monthly.map((one, i) => (i === 2 ? seasonal.lowestPercent : one)),
  });
});

test('a card a station: a result goes on to the next that is not tested, and any can be looked at again', () => {
  const editor = editorOf();
  function Tests() {
    const { settled, survey: noted } = useSyncExternalStore(editor.subscribe, editor.snapshot);
    const { visit } = noted;
    return visit ? (
      // Safe cast for what the card reads of a step.
      <TestList
        {...({ plan: settled, survey: noted, editor, timerId: 't', visit } as Parameters<
          typeof TestList
        >[0])}
      />
    ) : null;
  }
  shown(<Tests />);
  const station = () => document.querySelector('.test-station')?.textContent;
  expect(station()).toBe('1 Front');
  fireEvent.click(screen.getByRole('button', { name: 'Ran well' }));
  expect(station()).toBe('2 ');
  fireEvent.click(screen.getByRole('radio', { name: 'Weak' }));
  expect(station()).toBe('3 ');
  expect(screen.getByText('2 of 3 tested.', { exact: false })).toBeTruthy();
  const rows = within(screen.getByRole('list')).getAllByRole('button');
  expect(rows.map((row) => row.textContent)).toEqual(['1 FrontRan well', '2 Weak', '3 not tested']);
  const [first] = rows;
  if (first) fireEvent.click(first);
  expect(station()).toBe('1 Front');
  expect(editor.snapshot().survey.visit?.tests).toEqual([
    { station: 1, result: 'waters' },
    { station: 2, result: 'weak' },
  ]);
});

test('by day a program has on the screen the colour that it has on paper', () => {
  applyTheme({ theme: 'day', contrast: 'usual', textSize: 100 });
  const { style } = document.documentElement;
  expect(PROGRAM_LOOKS.map((_, look) => style.getPropertyValue(`--program-${look}`))).toEqual(
    PROGRAM_LOOKS.map(({ colour }) => colour),
  );
});
