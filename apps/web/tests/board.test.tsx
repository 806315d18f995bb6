/** The board by keyboard: typing, stepping, refusals, copy and paste, moving, and accessible as a grid. */
import './patience.ts';
import { afterEach, expect, test } from '@jest/globals';
import {
  act,
  cleanup,
  createEvent,
  fireEvent,
  render,
  renderHook,
  screen,
  within,
} from '@testing-library/react';
import { useState, useSyncExternalStore } from 'react';
import {
  EMPTY_SURVEY,
  emptyPlan,
  TIMER_KINDS,
  type Days,
  type Plan,
  type Program,
} from '@water-clock/core';
import { TimerEditor } from '../src/data/editor/editor.ts';
import { useProgramActs } from '../src/visit/programs/useProgramActs.ts';
import { editorAlone } from './editorAlone.ts';
import { Board } from '../src/visit/programs/Board.tsx';

afterEach(cleanup);

const [, sixStations] = TIMER_KINDS;
const program = (letter: string, ...runs: (readonly [number, number])[]) => ({
  letter,
  starts: ['06:00'],
  days: { rule: 'daily' as const },
  runs: runs.map(([station, minutes]) => ({ station, seconds: minutes * 60 })),
});

function editorOf(stations: number, programs: Plan['programs']): TimerEditor {
  if (!sixStations) throw new Error('no kinds');
  const plan: Plan = {
    ...emptyPlan({ ...sixStations, stationCount: stations }),
    stations: Array.from({ length: stations }, (_, i) => ({ number: i + 1, name: `Bed ${i + 1}` })),
    programs,
  };
  let ids = 0;
  return new TimerEditor({ plan, survey: EMPTY_SURVEY, version: 1 }, [], {
    // Never answers, so everything stays under way.
    transport: {
      send: () => new Promise(() => undefined),
      load: () => new Promise(() => undefined),
    },
    merging: () => new Promise(() => undefined),
    newId: () => String(ids++),
    keep: () => undefined,
    later: () => undefined,
  });
}

function Shown({ editor }: { readonly editor: TimerEditor }) {
  const { settled } = useSyncExternalStore(editor.subscribe, editor.snapshot);
  const [percents] = useState(() => settled.programs.map(() => 100));
  return <Board plan={settled} editor={editor} percents={percents} />;
}

const shown = (editor: TimerEditor) => {
  render(<Shown editor={editor} />);
  return editor;
};
const cell = (station: number, letter: string) =>
  screen.getByRole<HTMLInputElement>('textbox', {
    name: `Minutes of ${station} Bed ${station} in ${letter}`,
  });
const key = (element: HTMLElement, name: string, with_: object = {}) =>
  fireEvent.keyDown(element, { key: name, ...with_ });
const focus = (element: HTMLElement) => {
  act(() => element.focus());
  return element;
};
const runsOf = (editor: TimerEditor, letter: string) =>
  editor.snapshot().settled.programs.find((one) => one.letter === letter)?.runs;

test('is a grid by rows and columns with one cell in the tab order; the arrows move it', () => {
  shown(editorOf(4, [program('A', [1, 10]), program('B', [2, 5])]));
  const grid = screen.getByRole('grid', { name: 'Minutes of each station in each program' });
  expect(grid.getAttribute('aria-rowcount')).toBe('5');
  expect(within(grid).getAllByRole('rowheader')).toHaveLength(4);
  const inOrder = () =>
    within(grid)
      .getAllByRole<HTMLInputElement>('textbox')
      .filter(({ tabIndex }) => tabIndex === 0);
  expect(inOrder()).toEqual([cell(1, 'A')]);
  key(focus(cell(1, 'A')), 'ArrowRight');
  key(cell(1, 'B'), 'ArrowDown');
  expect(document.activeElement).toBe(cell(2, 'B'));
  expect(inOrder()).toEqual([cell(2, 'B')]);
});

test('what is typed is shown, made by Enter, which goes on, and taken back by Escape', () => {
  const editor = shown(editorOf(4, [program('A', [1, 10])]));
  fireEvent.change(focus(cell(1, 'A')), { target: { value: '12:30' } });
  expect(editor.snapshot().plan.programs[0]?.runs).toEqual([{ station: 1, seconds: 750 }]);
  expect(runsOf(editor, 'A')).toEqual([{ station: 1, seconds: 600 }]);
  key(cell(1, 'A'), 'Enter');
  expect(runsOf(editor, 'A')).toEqual([{ station: 1, seconds: 750 }]);
  expect(document.activeElement).toBe(cell(2, 'A'));
  fireEvent.change(cell(2, 'A'), { target: { value: '3' } });
  key(cell(2, 'A'), 'Escape');
  expect(cell(2, 'A').value).toBe('');
  expect(editor.snapshot().plan.programs[0]?.runs).toHaveLength(1);
});

test('what is no run time stays at its cell, is told, and changes nothing', () => {
  const editor = shown(editorOf(4, [program('A', [1, 10])]));
  fireEvent.change(focus(cell(1, 'A')), { target: { value: 'soon' } });
  key(cell(1, 'A'), 'ArrowDown');
  expect(screen.getByRole('alert').textContent).toMatch(/^Station 1: “soon” is not a run time/);
  expect(document.activeElement).toBe(cell(1, 'A'));
  expect(cell(1, 'A').getAttribute('aria-invalid')).toBe('true');
  expect(runsOf(editor, 'A')).toEqual([{ station: 1, seconds: 600 }]);
});

test('plus and minus step as one change, which the next key makes', () => {
  const editor = shown(editorOf(4, [program('A', [1, 10])]));
  const step = editor.snapshot().settled.timer.runStepSeconds;
  for (const sign of ['+', '+', '-']) key(focus(cell(1, 'A')), sign);
  key(cell(1, 'A'), 'ArrowDown');
  expect(runsOf(editor, 'A')?.[0]?.seconds).toBe(600 + step);
  act(() => editor.undo());
  expect(runsOf(editor, 'A')?.[0]?.seconds).toBe(600);
});

test('Shift chooses a range; Delete empties it, Control D fills it, each as one step', () => {
  const editor = shown(editorOf(4, [program('A', [1, 10], [2, 5]), program('B', [3, 7])]));
  key(focus(cell(1, 'A')), 'ArrowDown', { shiftKey: true });
  key(cell(2, 'A'), 'ArrowDown', { shiftKey: true });
  expect(screen.getAllByRole('gridcell', { selected: true })).toHaveLength(3);
  key(cell(3, 'A'), 'd', { ctrlKey: true });
  expect(runsOf(editor, 'A')?.map(({ seconds }) => seconds)).toEqual([600, 600, 600]);
  act(() => editor.undo());
  expect(runsOf(editor, 'A')?.map(({ seconds }) => seconds)).toEqual([600, 300]);
  key(focus(cell(3, 'A')), 'Delete');
  expect(runsOf(editor, 'A')).toEqual([]);
});

test('a range is copied and pasted as a spreadsheet has it', () => {
  const editor = shown(editorOf(4, [program('A', [1, 10]), program('B', [2, 5])]));
  key(focus(cell(1, 'A')), 'End', { shiftKey: true });
  const put: Record<string, string> = {};
  const copy = createEvent.copy(cell(1, 'B'));
  Object.assign(copy, {
    clipboardData: { setData: (type: string, text: string) => (put[type] = text) },
  });
  fireEvent(cell(1, 'B'), copy);
  expect(put).toEqual({ 'text/plain': '10\t' });
  key(focus(cell(3, 'A')), 'ArrowUp');
  const paste = createEvent.paste(cell(2, 'A'));
  Object.assign(paste, { clipboardData: { getData: () => '1\t2\n3\t4' } });
  fireEvent(cell(2, 'A'), paste);
  expect(runsOf(editor, 'A')?.map(({ seconds }) => seconds / 60)).toEqual([10, 1, 3]);
  expect(runsOf(editor, 'B')?.map(({ seconds }) => seconds / 60)).toEqual([2, 4]);
});

test('Alt and an arrow move a run time to the next program, and the focus with it', () => {
  const editor = shown(editorOf(4, [program('A', [1, 10]), program('B', [2, 5])]));
  key(focus(cell(1, 'A')), 'ArrowRight', { altKey: true });
  expect(runsOf(editor, 'A')).toEqual([]);
  expect(runsOf(editor, 'B')).toContainEqual({ station: 1, seconds: 600 });
  expect(document.activeElement).toBe(cell(1, 'B'));
  // At the edge there is nowhere to go.
  key(cell(1, 'B'), 'ArrowRight', { altKey: true });
  expect(runsOf(editor, 'B')).toContainEqual({ station: 1, seconds: 600 });
});

test('of ninety-nine stations and twenty-six programs only what is seen is there, and the keys reach the rest', () => {
  const letters = Array.from({ length: 26 }, (_, i) => String.fromCharCode(65 + i));
  shown(
    editorOf(
      99,
      letters.map((letter) => program(letter)),
    ),
  );
  expect(screen.getAllByRole('textbox').length).toBeLessThan(800);
  expect(screen.queryByRole('textbox', { name: 'Minutes of 99 Bed 99 in Z' })).toBeNull();
  key(focus(cell(1, 'A')), 'End', { ctrlKey: true });
  expect(document.activeElement).toBe(cell(99, 'Z'));
});

test('going from an hourly rule back to another brings the old starts back, in one step', () => {
  const [, , kind] = TIMER_KINDS;
  if (!kind) throw new Error('there is a third kind');
  const begun: Program = {
    letter: 'A',
    starts: ['04:00', '05:30'],
    days: { rule: 'daily' },
    runs: [{ station: 1, seconds: 600 }],
  };
  const editor = editorAlone({
    plan: { ...emptyPlan(kind), programs: [begun] },
    survey: EMPTY_SURVEY,
  });
  const now = () => editor.snapshot().settled.programs[0] ?? begun;
  const { result, rerender } = renderHook(() => useProgramActs(now(), editor));
  const commit = (days: Days) => {
    act(() => void result.current.commitDays(days));
    rerender();
  };
  commit({ rule: 'hours', everyHours: 36, first: '2027-06-01T05:00' });
  expect(now().starts).toEqual([]);
  commit({ rule: 'weekdays', weekdays: ['mon'] });
  expect(now()).toMatchObject({ starts: ['04:00', '05:30'], days: { rule: 'weekdays' } });
  act(() => editor.undo());
  expect(now()).toMatchObject({ starts: [], days: { rule: 'hours' } });
});
