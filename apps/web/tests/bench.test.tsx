/** The bench timer's panel: held keys, keys a task hides, a blank display, a clock never set; the card and the garden. */
import './patience.ts';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import {
  emptyPlan,
  SHIPPED_KINDS,
  SHIPPED_TASKS,
  type BenchKey,
  type Display,
  type Lamps,
} from '@water-clock/core';
import { BenchCard } from '../src/training/bench/BenchCard.tsx';
import { BenchGarden } from '../src/training/bench/BenchGarden.tsx';
import { BenchPanel } from '../src/training/bench/BenchPanel.tsx';

const kind = SHIPPED_KINDS.find((one) => one.kind.timer.name === 'Four-station wall timer')?.kind;
if (!kind) throw new Error('the kind is not there');
const plan = emptyPlan(kind.timer);

const DISPLAY: Display = {
  ...{ isLit: true, left: 'program A', right: 'start time 1 of 4', big: '5:00', unit: 'am' },
  ...{ place: '6 of 31', clock: '10:00 AM', flashes: false, isResting: false, isDraft: false },
};
const LAMPS: Lamps = {
  stations: [2],
  pump: true,
  main: true,
  rain: false,
  power: true,
  short: false,
};

function panel(more: Partial<Display> = {}, without: readonly BenchKey[] = [], isEven = true) {
  const pressed: string[] = [];
  render(
    <BenchPanel
      display={{ ...DISPLAY, ...more }}
      lamps={LAMPS}
      plan={plan}
      isEven={isEven}
      without={without}
      press={(key, fast) => pressed.push(fast ? `${key} fast` : key)}
    />,
  );
  return pressed;
}
const screenText = () => document.querySelector('.bench-screen')?.textContent ?? '';

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

describe('the keys', () => {
  test('a click is one press; held, a key presses again and then goes by larger steps, until it is let go', () => {
    const pressed = panel();
    const more = screen.getByRole('button', { name: 'More' });
    fireEvent.click(more);
    expect(pressed).toEqual(['more']);
    fireEvent.pointerDown(more);
    act(() => jest.advanceTimersByTime(250 * 10));
    fireEvent.pointerUp(more);
    fireEvent.click(more);
    act(() => jest.advanceTimersByTime(5_000));
    expect(pressed).toHaveLength(11);
    expect(pressed[8]).toBe('more');
    expect(pressed.slice(9)).toEqual(['more fast', 'more fast']);
  });

  test('a key that is not to be held presses once', () => {
    const pressed = panel();
    const rest = screen.getByRole('button', { name: 'off' });
    fireEvent.pointerDown(rest);
    act(() => jest.advanceTimersByTime(5_000));
    fireEvent.click(rest);
    expect(pressed).toEqual(['rest']);
  });

  test('the keyboard presses them, Shift goes faster, and other keys are left to the page', () => {
    const pressed = panel();
    const on = screen.getByRole('button', { name: 'Page on' });
    for (const key of ['ArrowRight', 'ArrowUp', 'p', 's', 'q']) fireEvent.keyDown(on, { key });
    fireEvent.keyDown(on, { key: 'ArrowDown', shiftKey: true });
    fireEvent.keyDown(on, { key: 'r', ctrlKey: true });
    expect(pressed).toEqual(['page-on', 'more', 'program', 'store', 'less fast']);
  });

  test('a task does without some, by hand and by the keyboard', () => {
    const pressed = panel({}, ['rest', 'by-hand']);
    expect(screen.getByRole('button', { name: 'off' })).toHaveProperty('disabled', true);
    fireEvent.keyDown(screen.getByRole('button', { name: 'More' }), { key: 'r' });
    fireEvent.keyDown(screen.getByRole('button', { name: 'More' }), { key: 'h' });
    expect(pressed).toEqual([]);
  });
});

describe('the display', () => {
  test('says a page aloud, and not the time of day', () => {
    panel();
    expect(document.querySelector('[aria-live]')?.textContent).toBe(
      'program A start time 1 of 4 5:00 am',
    );
    cleanup();
    panel({ place: '', left: 'WED 2 June', right: '' });
    expect(document.querySelector('[aria-live]')?.textContent).toBe('');
  });

  test('is blank without power, and says so', () => {
    panel({ isLit: false, left: '', right: '', big: '', unit: '', place: '', clock: '' });
    expect(screenText()).toMatch(/^The display is blank\.\s*$/u);
  });

  test('a clock that nobody has set comes and goes; a page does not', () => {
    panel({ flashes: true, place: '' }, [], true);
    expect(screenText()).toContain('5:00');
    cleanup();
    panel({ flashes: true, place: '' }, [], false);
    expect(screenText()).not.toContain('5:00');
    cleanup();
    panel({ flashes: true }, [], false);
    expect(screenText()).toContain('5:00');
  });

  test('says what is not entered, and that it is off', () => {
    panel({ isDraft: true, isResting: true });
    expect(screenText()).toMatch(/not entered.*off/u);
  });
});

test('lamps are told by more than their colour', () => {
  panel();
  const stations = within(screen.getByRole('list', { name: 'Station lights' }));
  expect(stations.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
    '○ 1',
    '● 2 on',
    '○ 3',
    '○ 4',
  ]);
});

test('a bed says that it runs, that its valve does not close, and what it was given', () => {
  const bed = { name: '', isWet: false, secondsLeft: null, seconds: 0, litres: null };
  render(
    <BenchGarden
      units="metric"
      beds={[
        { ...bed, station: 1, isWet: true, secondsLeft: 65, seconds: 5 },
        { ...bed, station: 2, isWet: true, seconds: 600 },
        { ...bed, station: 3, seconds: 600, litres: 120 },
        { ...bed, station: 4 },
      ]}
    />,
  );
  expect(screen.getAllByRole('listitem').map((one) => one.textContent)).toEqual([
    '1 running, 1:05 left',
    '2 its valve does not close',
    '3 10 min, 120 L',
    '4 no water yet',
  ]);
});

test('the card ticks what is in the box, line by line, and never asks for the clock', () => {
  const task = SHIPPED_TASKS.find(({ id }) => id === 'set-02-start')?.task;
  if (!task?.card) throw new Error('the task has a card');
  const target = { ...task.scene.plan, ...task.card };
  const now = { style: { dialect: {}, clock: '12' as const }, today: 20_970, secondOfDay: 0 };
  const card = (box: typeof target) => (
    <MemoryRouter>
      <BenchCard target={target} box={box} now={now} />
    </MemoryRouter>
  );
  const { rerender } = render(card(task.scene.plan));
  expect(screen.getByText(/^1 lines? (is|are) left\.$/u)).toBeTruthy();
  expect(screen.getByText('A start time 1').closest('li')?.textContent).toContain('5:00 AM');
  expect(screen.queryByText('Year')).toBeNull();
  expect(screen.getAllByLabelText('not yet')).toHaveLength(1);
  rerender(card(target));
  expect(screen.getByText('Everything is keyed in.')).toBeTruthy();
  expect(screen.queryAllByLabelText('not yet')).toEqual([]);
});
