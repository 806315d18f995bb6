/** The checks: marks in their places, and the drawer with groups, safe fixes and acceptances. */
import './patience.ts';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import type { Remote } from 'comlink';
import { useSyncExternalStore } from 'react';
import { MemoryRouter } from 'react-router';
import {
  check,
  EMPTY_SURVEY,
  emptyPlan,
  epochDayOf,
  repair,
  TIMER_KINDS,
  type Brief,
  type Finding,
  type Plan,
} from '@water-clock/core';
import { CheckMark } from '../src/visit/checks/CheckMark.tsx';
import { breachWords, checkMarks } from '../src/visit/checks/checkMarks.ts';
import { ChecksContext } from '../src/visit/checks/checksContext.ts';
import { ChecksButton } from '../src/visit/checks/ChecksButton.tsx';
import type { RulesState } from '../src/visit/steps/useVisitBasis.ts';
import { ChecksProvider } from '../src/visit/checks/ChecksProvider.tsx';
import type { RepairShown, SettingsRequest } from '../src/data/workers/planning.ts';
import { connection } from '../src/data/workers/started.ts';
import type { TimerEditor } from '../src/data/editor/editor.ts';
import { PreferencesProvider } from '../src/app/platform/preferences.tsx';
import { VerdictBar } from '../src/visit/timer/VerdictBar.tsx';
import { editorAlone } from './editorAlone.ts';

/** What the repair worker was asked, and a way to answer. */
const repairs = { asked: null as SettingsRequest | null, water: [] as RepairShown['water'] };
beforeEach(() => {
  repairs.asked = null;
  repairs.water = [];
});
const calls = {
  repair: (request: SettingsRequest) => {
    repairs.asked = request;
    const { plan, coming } = repair(request.plan, request.brief, request.on);
    return Promise.resolve({ ok: true, value: { plan, coming, water: repairs.water } });
  },
};
// Safe cast: no other function of a worker is called here.
connection.to = <T,>() => calls as unknown as Remote<T>;
Object.assign(globalThis, {
  Worker: class {
    terminate = () => undefined;
  },
});

afterEach(cleanup);

const TODAY = epochDayOf({ year: 2027, month: 6, day: 9 });
const SPEECH = { on: TODAY, clock: '24' } as const;
const twoPrograms = (station: number, severity: Finding['severity'] = 'warning'): Finding => ({
  code: 'station-in-two-programs',
  severity,
  programs: ['A', 'B'],
  where: { station },
});

test('a mark stands at the place a finding is about, with all sentences and the weight of the worst', () => {
  const marks = checkMarks(
    [
      twoPrograms(3),
      {
        code: 'same-start-twice',
        severity: 'error',
        times: 2,
        where: { program: 'A', start: '05:00' },
      },
      { code: 'missing-days', severity: 'error', where: { program: 'B' } },
      twoPrograms(3, 'error'),
      twoPrograms(4, 'note'),
    ],
    SPEECH,
  );
  expect(marks({ station: 3 })).toMatchObject({ severity: 'error' });
  expect(marks({ station: 3 })?.sentences).toHaveLength(2);
  expect(marks({ program: 'A', start: '05:00' })?.severity).toBe('error');
  expect(marks({ program: 'B' })?.sentences).toHaveLength(1);
  // Neither a start's program, nor "for information", nor anything else.
  expect(marks({ program: 'A' })).toBeNull();
  expect(marks({ station: 4 })).toBeNull();
  expect(marks({ station: 1 })).toBeNull();
});

test('what the rules of the place forbid comes before “clear”, and not before an overlap', () => {
  const forbidden = (station: number): Finding => ({
    code: 'forbidden-day',
    severity: 'error',
    where: { program: 'A', start: '05:00', station, date: TODAY },
  });
  expect(breachWords([twoPrograms(3)], SPEECH)).toBeNull();
  const breach = breachWords([twoPrograms(3), forbidden(1), forbidden(2)], SPEECH);
  expect(breach).toMatch(/^Station 1 waters on .* do not allow.*And 1 more like this\.$/);
  const shown = (tone: 'clear' | 'overlap') => {
    render(
      <ChecksContext value={{ count: 3, marks: () => null, breach, rules: null }}>
        <VerdictBar
          tone={tone}
          isKnown
          headline="As it is"
          detail="No two cycles ever overlap."
          work={{ state: 'done' }}
          stop={() => undefined}
          fix={null}
          show={null}
        />
      </ChecksContext>,
    );
    const words = screen.getByRole('status').textContent;
    cleanup();
    return words;
  };
  // On a screen without a width, as on a phone, the bar is one line.
  expect(shown('clear')).toMatch(/^Station 1 waters on .* And 1 more like this\.$/);
  expect(shown('overlap')).toBe('As it is');
});

describe('the drawer', () => {
  const [, kind] = TIMER_KINDS;
  if (!kind) throw new Error('no kinds');
  const plan: Plan = {
    ...emptyPlan(kind),
    programs: [
      {
        letter: 'A',
        starts: ['05:00', '05:00'],
        runs: [{ station: 1, seconds: 600 }],
        days: { rule: 'daily' },
      },
      {
        letter: 'B',
        starts: ['05:05'],
        runs: [{ station: 1, seconds: 600 }],
        days: { rule: 'daily' },
      },
    ],
  };
  const brief = { stations: [], rules: {} } as unknown as Brief;

  interface Shown {
    readonly editor: TimerEditor;
    readonly rulesState: RulesState;
  }

  function Page({ editor, rulesState }: Shown) {
    const { settled, survey } = useSyncExternalStore(editor.subscribe, editor.snapshot);
    return (
      <ChecksProvider
        facts={{
          check: check(settled, TODAY),
          plan: settled,
          brief,
          rulesState,
          survey,
          today: TODAY,
          coming: [],
        }}
        timerId="t"
        editor={editor}
        speech={SPEECH}
        show={() => undefined}
      >
        <ChecksButton />
        <CheckMark station={1} />
      </ChecksProvider>
    );
  }
  const opened = async (one: Plan = plan, rulesState: RulesState = 'known') => {
    const editor = editorAlone({ plan: one, survey: EMPTY_SURVEY });
    render(
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <PreferencesProvider>
            <Page editor={editor} rulesState={rulesState} />
          </PreferencesProvider>
        </MemoryRouter>
      </QueryClientProvider>,
    );
    await act(() => {
      fireEvent.click(screen.getByRole('button', { name: /^Checks(: \d+)?$/ }));
      return Promise.resolve();
    });
    return { editor, drawer: await screen.findByRole('dialog') };
  };
  const press = (within_: HTMLElement, name: RegExp) =>
    fireEvent.click(within(within_).getAllByRole('button', { name })[0] ?? within_);

  test('has what must be fixed above what should be looked at, and opens from a mark, too', async () => {
    const { drawer } = await opened();
    const groups = within(drawer)
      .getAllByRole('heading', { level: 3 })
      .map(({ textContent }) => textContent?.replace(/ \d+$/, ''));
    expect(groups.slice(0, 3)).toEqual(['Suggested fix: 2 settings', 'Fix', 'Review']);
    expect(drawer.textContent).toMatch(/A has start time 5:00 twice/);
    expect(screen.getByRole('button', { name: /^Checks: Station 1 is in A and B/ })).toBeTruthy();
  });

  test.each([
    ['known', /Nothing left to review/],
    ['pending', /Loading the local rules/],
    ['failed', /cannot tell whether they are kept/],
  ] as const)(
    'says of an empty list what is known while the rules are %s',
    async (state, words) => {
      const { drawer } = await opened(emptyPlan(kind), state);
      expect(drawer.textContent).toMatch(words);
      expect(/Nothing left/.test(drawer.textContent)).toBe(state === 'known');
    },
  );

  test('offers the smallest fix with its settings, and a new plan as the second choice', async () => {
    const one = { ...plan, programs: plan.programs.map((own) => ({ ...own, starts: ['05:00'] })) };
    repairs.water = [{ station: 1, before: 8400, after: 7800 }];
    const { editor, drawer } = await opened(one);
    expect(repairs.asked).toMatchObject({ on: TODAY, plan: { programs: one.programs } });
    expect(drawer.textContent).toMatch(/Suggested fix: 1 setting.*B start time 15:004:45/);
    expect(drawer.textContent).toMatch(
      /Station 1 gets less: 2 h 10 min a week instead of 2 h 20 min.*by phone/,
    );
    expect(drawer.textContent).not.toMatch(/same water/);
    expect(within(drawer).getByRole('button', { name: 'Make a new plan' })).toBeTruthy();
    press(drawer, /^Use this fix/);
    expect(check(editor.snapshot().settled, TODAY).verdict).toBe('clear');
    expect(editor.snapshot().settled.programs[0]?.runs).toEqual(one.programs[0]?.runs);
  });

  test('shows what is safe to fix before it is made, and leaves it on request', async () => {
    const { editor, drawer } = await opened();
    const before = editor.snapshot().settled;
    press(drawer, /^Preview safe fixes/);
    const preview = within(drawer).getByRole('status');
    expect(preview.textContent).toMatch(/change when stations run, never how much/);
    press(preview, /^Cancel/);
    expect(editor.snapshot().settled).toBe(before);
    press(drawer, /^Preview safe fixes/);
    press(within(drawer).getByRole('status'), /^Make /);
    expect(editor.snapshot().settled.programs).not.toEqual(before.programs);
    expect(check(editor.snapshot().settled, TODAY).verdict).toBe('clear');
    act(() => editor.undo());
    expect(editor.snapshot().settled).toEqual(before);
  });

  test('accepts a finding with a reason only, sets it apart, and takes it back', async () => {
    const { editor, drawer } = await opened();
    press(drawer, /^Accept …/);
    const form = within(drawer).getByRole('form', { name: /^Accept: / });
    const accept = within(form).getByRole<HTMLButtonElement>('button', { name: 'Accept' });
    expect(accept.disabled).toBe(true);
    const [reason] = within(form).getAllByRole('textbox');
    fireEvent.change(reason ?? form, { target: { value: 'until the new valve is in' } });
    fireEvent.click(accept);
    expect(editor.snapshot().survey.accepted).toMatchObject([
      { reason: 'until the new valve is in' },
    ]);
    fireEvent.click(within(drawer).getByText(/^Accepted: 1/));
    expect(drawer.textContent).toMatch(/until the new valve is in/);
    press(drawer, /^Undo acceptance/);
    expect(editor.snapshot().survey.accepted ?? []).toEqual([]);
  });
});
