/** Every step of a visit and the office's pages in their states: empty, loading, failed, filled, and after a press. */
import './patience.ts';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import type { Remote } from 'comlink';
import { useSyncExternalStore, type ComponentType } from 'react';
import { MemoryRouter, Route, Routes, useLocation } from 'react-router';
import {
  EMPTY_SURVEY,
  emptyPlan,
  homeownerPage,
  NO_OFFICE,
  SHIPPED_KINDS,
  SHIPPED_MINUTES,
  siteFields,
  siteMinutes,
  TIMER_KINDS,
  type Brief,
  type Cost,
  type Plan,
  type Survey,
} from '@water-clock/core';
import type { StepProps } from '../src/visit/steps/stepProps.ts';
import type {
  PlanNews,
  PlanRequest,
  PlanResult,
  SettingsRequest,
} from '../src/data/workers/planning.ts';
import { connection } from '../src/data/workers/started.ts';
import { editorAlone } from './editorAlone.ts';

/** What a worker was asked, and a way to answer from a test. */
const worker = {
  ended: 0,
  planned: 0,
  /** Settings whose verdict was asked for. */
  presents: [] as Plan[],
  asked: null as PlanRequest | null,
  tell: null as ((news: PlanNews) => void) | null,
  diagnose: (_request: unknown, _progress: (share: number) => void): Promise<unknown> =>
    new Promise(() => undefined),
};
const calls = {
  plan: (request: PlanRequest, tell: (news: PlanNews) => void) => {
    worker.asked = request;
    worker.planned++;
    worker.tell = tell;
    return Promise.resolve();
  },
  present: ({ plan: set }: SettingsRequest) => {
    worker.presents.push(set);
    const value = { verdict: 'overlap', headroom: null, coming: [] };
    return Promise.resolve({ ok: true, value });
  },
  diagnose: (request: unknown, progress: (share: number) => void) =>
    worker.diagnose(request, progress),
};
const asked = (): PlanRequest => {
  if (!worker.asked) throw new Error('the worker was asked nothing');
  return worker.asked;
};
// Safe cast: no other function of a worker is called here.
connection.to = <T,>() => calls as unknown as Remote<T>;
Object.assign(globalThis, {
  Worker: class {
    terminate = () => worker.ended++;
  },
});

const { PreferencesProvider } = await import('../src/app/platform/preferences.tsx');
const pages = {
  house: await import('../src/visit/house/HouseView.tsx'),
  timer: await import('../src/visit/timerKind/TimerKindView.tsx'),
  found: await import('../src/visit/found/AsFoundView.tsx'),
  seen: await import('../src/visit/seen/SeenView.tsx'),
  stations: await import('../src/visit/stations/StationsView.tsx'),
  walk: await import('../src/visit/stations/WalkView.tsx'),
  minutes: await import('../src/visit/minutes/MinutesView.tsx'),
  brief: await import('../src/visit/brief/BriefView.tsx'),
  plan: await import('../src/visit/planner/PlannerView.tsx'),
  keyin: await import('../src/visit/keyIn/KeyInView.tsx'),
  leave: await import('../src/visit/leave/LeaveView.tsx'),
  page: await import('../src/homeowner/PageView.tsx'),
  log: await import('../src/visit/log/LogbookView.tsx'),
};
const { fetchAhead } = await import('../src/visit/timer/StepView.tsx');
const { default: TodayPage } = await import('../src/office/today/TodayPage.tsx');
const { default: SitesPage } = await import('../src/office/sites/SitesPage.tsx');
const { default: CalendarPage } = await import('../src/office/calendar/CalendarPage.tsx');

const DAY = 86_400;
/** Monday 1 March 2027. */
const TODAY = 20_878;
const [, , kind] = TIMER_KINDS;
if (!kind) throw new Error('there is a third kind');
const plan: Plan = {
  ...emptyPlan(kind),
  settings: { seasonalPercent: 100 },
  stations: [
    { number: 1, name: 'Front lawn' },
    { number: 2, name: 'Roses' },
  ],
  programs: [
    {
      letter: 'A',
      starts: ['04:00', '15:10'],
      runs: [{ station: 1, seconds: 1200 }],
      days: { rule: 'daily' },
    },
  ],
};
const visit = { began: '2027-03-01T06:00' };
const site = {
  ...siteFields({ name: 'Sandpiper Court', houseNumber: '5', timeZone: 'UTC' }),
  id: 's',
  version: 1,
};

/** The server's answers by path; other paths are unreachable. */
let answers: Record<string, unknown> = {};
beforeEach(() => {
  answers = {};
  localStorage.clear();
  Element.prototype.scrollIntoView = () => undefined;
  globalThis.scrollTo = () => undefined;
  globalThis.fetch = jest.fn((path: unknown) => {
    const body = answers[String(path).replace(/\?.*/, '')];
    if (body === undefined) return Promise.reject(new TypeError('offline'));
    if (body === 'never') return new Promise(() => undefined);
    const headers = new Headers({ 'water-clock-api': '1' });
    return Promise.resolve({ ok: true, status: 200, headers, json: () => Promise.resolve(body) });
  }) as unknown as typeof fetch;
});
afterEach(cleanup);

const client = () => new QueryClient({ defaultOptions: { queries: { retry: false } } });
const Address = () => <output data-testid="address">{useLocation().pathname}</output>;
const address = () => screen.getByTestId('address').textContent;

/** A step of a timer as its page renders it; the record is the editor's. */
function open(
  name: keyof typeof pages,
  survey: Survey = EMPTY_SURVEY,
  of: Plan = plan,
  basis: Partial<StepProps> = {},
) {
  const editor = editorAlone({ plan: of, survey });
  // Safe cast: a step gets what every step gets.
  const View = pages[name].default as ComponentType<StepProps>;
  function Step() {
    const { settled, survey: noted } = useSyncExternalStore(
      (listener) => editor.subscribe(listener),
      () => editor.snapshot(),
    );
    return (
      <View
        timerId="t"
        site={site}
        plan={settled}
        survey={noted}
        editor={editor}
        today={TODAY}
        now={TODAY * DAY + 6 * 3600}
        rules={null}
        rulesState={basis.rulesState ?? 'known'}
        isPending={basis.isPending ?? false}
        table={SHIPPED_MINUTES}
        weather={null}
        minutes={siteMinutes(settled, noted, SHIPPED_MINUTES, null, {})}
      />
    );
  }
  render(
    <QueryClientProvider client={client()}>
      <PreferencesProvider>
        <MemoryRouter initialEntries={[`/timers/t/${name === 'walk' ? 'walk/1' : name}`]}>
          <Address />
          <Routes>
            <Route path="/timers/t/walk/:station" element={<Step />} />
            <Route path="/timers/t/*" element={<Step />} />
          </Routes>
        </MemoryRouter>
      </PreferencesProvider>
    </QueryClientProvider>,
  );
  return editor;
}
const text = () => document.body.textContent ?? '';
/** By text: asking each element for its role takes seconds on a large page. */
const button = (name: string | RegExp) =>
  [...document.querySelectorAll('button')].find((one) => {
    const words = (one.getAttribute('aria-label') ?? one.textContent ?? '').trim();
    return typeof name === 'string' ? words === name : name.test(words);
  });
const press = (name: string | RegExp) => {
  const found = button(name);
  if (!found) throw new Error(`there is no button ${String(name)}`);
  fireEvent.click(found);
};

test.each(['found', 'seen', 'keyin', 'leave'] as const)(
  'without a visit %s says what it will hold, and one press begins it',
  (name) => {
    const editor = open(name);
    expect(screen.getAllByRole('listitem').length).toBeGreaterThan(1);
    press('Start visit');
    expect(editor.snapshot().survey.visit?.began).toBe('2027-03-01T06:00');
    expect(button('Start visit')).toBeUndefined();
  },
);

describe('house and rules', () => {
  test('says that no rules are chosen, and where to choose them', () => {
    open('house');
    expect(text()).toMatch(/No rules are chosen yet/);
    expect(screen.getByRole('link', { name: /in the library/ }).getAttribute('href')).toBe(
      '/library/rules',
    );
  });

  test('rules by hand count, until the house goes by the library again', () => {
    const editor = open('house', { ...EMPTY_SURVEY, rules: { mostDaysPerWeek: 2 } });
    expect(text()).toMatch(/Set for this site:/);
    press('Use library rules');
    expect(editor.snapshot().survey.rules).toBeUndefined();
    expect(text()).toMatch(/No rules are chosen yet/);
  });

  test('Saved is said only of what is in the fields', async () => {
    answers['/api/sites/s/changes'] = site;
    open('house');
    const flow = () => screen.getByLabelText(/^Supply flow/);
    const enter = (typed: string) => {
      fireEvent.change(flow(), { target: { value: typed } });
      fireEvent.blur(flow());
      press('Save site');
    };
    enter('15');
    expect(await screen.findByText('Saved.')).toBeTruthy();
    enter('1e99');
    expect(text()).toMatch(
      /“1e99” cannot be used here\. Enter a number from 0 to 999999, or leave/,
    );
    expect(document.activeElement).toBe(flow());
    // Also where the button is.
    await screen.findByText('Not saved: a field above has text that cannot be used.');
    await waitFor(() => expect(text()).not.toMatch(/Saved\./));
    // The first write only.
    const writes = jest.mocked(fetch).mock.calls.filter(([, init]) => init?.method === 'POST');
    expect(writes).toHaveLength(1);
    enter('2000');
    expect(text()).toMatch(/Enter a flow above 0 and up to 1000 L\/min, or leave this empty\./);
    enter('');
    expect(await screen.findByText('Saved.')).toBeTruthy();
    await waitFor(() => expect(text()).not.toMatch(/Not saved/));
  });
});

test('the timer: its kind says what it can do, its groups say the main fact and open', () => {
  open('timer', { ...EMPTY_SURVEY, device: { pump: 'bore pump', power: 'mains' } });
  expect(document.querySelector('.kind-card')?.textContent).toMatch(/12 stations|stations/);
  expect(text()).toMatch(/bore pump/);
  const group = screen.getByRole('button', { name: /Power/ });
  expect(group.getAttribute('aria-expanded')).toBe('false');
  fireEvent.click(group);
  expect(group.getAttribute('aria-expanded')).toBe('true');
});

describe('what was seen', () => {
  const seen: Survey = {
    ...EMPTY_SURVEY,
    visit: {
      ...visit,
      sightings: [{ saw: 'ran', from: '2027-02-28T15:15', station: 1 }],
    },
  };

  test('shows how far the work is, and can be stopped', async () => {
    let progress: (share: number) => void = () => undefined;
    worker.diagnose = (_request, listener) => {
      progress = listener;
      return new Promise(() => undefined);
    };
    open('seen', seen);
    act(() => progress(0.4));
    expect(await screen.findByText(/Calculating: 40 %/)).toBeTruthy();
    press('Stop');
    expect(text()).toMatch(/Stopped\. Add or delete a sighting/);
  });

  test('deleting what was seen brings its form back', () => {
    const editor = open('seen', seen);
    press('Delete sighting 1');
    expect(editor.snapshot().survey.visit?.sightings).toBeUndefined();
    expect(button('Add sighting')).toBeDefined();
  });
});

describe('stations', () => {
  test('a walk goes on where it was left, and the list says who was not walked', () => {
    open('stations', {
      ...EMPTY_SURVEY,
      stations: [{ number: 1, head: 'fixed-spray', walked: 'seen' }],
    });
    const [first, second] = within(screen.getAllByRole('list')[0] as HTMLElement).getAllByRole(
      'listitem',
    );
    expect(first?.textContent).toMatch(/Front lawn.*Fixed spray.*walked$/);
    expect(second?.textContent).toMatch(/Roses.*not walked$/);
    press('Continue at station 2');
    expect(address()).toBe('/timers/t/walk/2');
  });

  test('new seed asks how often and until when; a station with something noted was seen', () => {
    const editor = open('walk');
    const noted = () => editor.snapshot().survey.stations?.[0];
    press(/New seed or turf$/);
    expect(noted()).toMatchObject({
      plants: 'new-seed-or-turf',
      oftenADay: { times: 3, until: '2027-03-22' },
      walked: 'seen',
    });
    expect(text()).toMatch(/Times a day.*Last on/);
    press(/Warm-season lawn$/);
    expect(noted()?.oftenADay).toBeUndefined();
  });

  test('the card notes a press at once; Skip and Next say how the station was left', () => {
    const editor = open('walk');
    press(/^\d?Drip$/);
    expect(editor.snapshot().survey.stations?.[0]?.head).toBe('drip');
    expect(editor.snapshot().settled.stations[0]?.overhead).toBe(false);
    press('Next: station 2');
    expect(address()).toBe('/timers/t/walk/2');
    press('Skip');
    expect(address()).toBe('/timers/t/stations');
    expect(editor.snapshot().survey.stations?.map(({ walked }) => walked)).toEqual([
      'seen',
      'skipped',
    ]);
  });
});

test('cups stand as a picture, as a table and as a spreadsheet; what is no volume is refused, and the others stay', async () => {
  const editor = open('walk');
  press('Catch cups');
  const field = () => screen.getByLabelText(/^Cup \d+( again)? \(ml\)$/);
  const enter = (volumes: string) => {
    fireEvent.change(field(), { target: { value: volumes } });
    fireEvent.keyDown(field(), { key: 'Enter' });
  };
  enter('20 24 8');
  enter('x');
  expect(text()).toMatch(/“x” is not a volume\. Enter millilitres, 0 or more\./);
  expect(editor.snapshot().survey.stations?.[0]?.cups?.millilitres).toEqual([20, 24, 8]);
  expect(document.querySelector('.cup-map')?.textContent).toMatch(/20248/);
  const made: Blob[] = [];
  URL.createObjectURL = (blob) => {
    made.push(blob as Blob);
    return 'blob:cups';
  };
  URL.revokeObjectURL = () => undefined;
  fireEvent.click(screen.getByText('Show as table'));
  const rows = within(screen.getByRole('region', { name: 'Cups as a table' }));
  expect(rows.getAllByRole('row').map((one) => one.textContent)).toEqual([
    'rowcupml',
    '1120',
    '1224',
    '138',
  ]);
  press('Save as CSV');
  const reader = new FileReader();
  const isRead = new Promise((resolve) => (reader.onload = resolve));
  reader.readAsText(made[0] ?? new Blob());
  await isRead;
  // Safe cast: it was read as text.
  expect((reader.result as string).replace(/^\uFEFF/, '').split(/\r?\n/)).toEqual(
    expect.arrayContaining(['row,cup,ml', '1,1,20', '1,2,24', '1,3,8']),
  );
});

describe('the code of the steps', () => {
  const idle = () => new Promise((resolve) => setTimeout(resolve, 400));
  const code = () => {
    const fetched: number[] = [];
    return {
      fetched,
      loaders: [0, 1].map((i) => () => {
        fetched.push(i);
        // The second is not available, which no one is told before its step is opened.
        return i === 0 ? Promise.resolve() : Promise.reject(new TypeError('offline'));
      }),
    };
  };

  test('is fetched one after another while nothing else is to be done, and no more of it after one was not to be had', async () => {
    const { fetched, loaders } = code();
    fetchAhead(loaders);
    expect(fetched).toEqual([]);
    await act(idle);
    await act(idle);
    expect(fetched).toEqual([0, 1]);
  });

  test('is left alone where the person asked to save, and once its page is gone', async () => {
    const { fetched, loaders } = code();
    Object.assign(navigator, { connection: { saveData: true } });
    fetchAhead(loaders);
    Object.assign(navigator, { connection: undefined });
    fetchAhead(loaders)();
    await act(idle);
    expect(fetched).toEqual([]);
  });
});

test('minutes without a place say what is missing, and what each station lacks', () => {
  open('minutes', { ...EMPTY_SURVEY, school: 'balance' });
  expect(text()).toMatch(/No weather town is chosen, so the water balance has no weather/);
  expect(button(/^Why station 2/)).toBeDefined();
  press(/^Why station 1/);
  expect(screen.getByRole('dialog').textContent).toMatch(/Front lawn/);
});

describe('the brief', () => {
  test('names the stations whose need is not known', () => {
    open('brief');
    expect(text()).toMatch(/The needs of stations 1, 2 are not known yet/);
  });

  test('a document that is no brief is refused with the reason, and the record stays', async () => {
    const editor = open('brief');
    const before = editor.snapshot();
    const input = document.querySelector<HTMLInputElement>('input[type=file]');
    const file = new File(['{"format":"water-clock-brief"}'], 'brief.json');
    Object.assign(file, { text: () => Promise.resolve('{"format":"water-clock-brief"}') });
    fireEvent.change(input as HTMLInputElement, { target: { files: [file] } });
    expect((await screen.findByRole('alert')).textContent).toMatch(/Nothing was changed:.*version/);
    expect(editor.snapshot().settled).toBe(before.settled);
  });
});

describe('the planner', () => {
  const known: Survey = {
    ...EMPTY_SURVEY,
    stations: [
      { number: 1, overruled: { weeklySeconds: 3600 } },
      { number: 2, overruled: { weeklySeconds: 1800 } },
    ],
  };

  const better: Plan = {
    ...plan,
    programs: plan.programs.map((one) => ({ ...one, starts: ['03:00'] })),
  };
  const resultOf = (brief: Brief): PlanResult => ({
    kind: 'as-wished',
    brief,
    plan: better,
    cost: [0, 0, 0, 1, 1, 0, 0],
    proof: { optimal: true, bound: [0, 0, 0, 1, 1, 0, 0] },
    reasons: [],
    coming: [],
    isSure: true,
    headroom: 140,
    claims: null,
  });

  test('without any need and any program there is nothing to plan, and it says so', () => {
    worker.asked = null;
    open('plan', EMPTY_SURVEY, { ...plan, programs: [] });
    expect(text()).toMatch(/Enter what at least one station needs/);
    expect(worker.asked).toBeNull();
  });

  test('plans as it opens; a plan stands beside what is set now, and is used', async () => {
    worker.planned = 0;
    const editor = open('plan', known);
    const { brief } = asked();
    expect(brief.stations.map(({ weeklySeconds }) => weeklySeconds)).toEqual([3600, 1800]);
    expect(text()).toMatch(/Planning …/);
    act(() => worker.tell?.({ kind: 'result', result: resultOf(brief) }));
    act(() => worker.tell?.({ kind: 'end' }));
    await waitFor(() => expect(text()).toMatch(/Programs overlap/));
    expect(text()).toMatch(/best plan possible/);
    const cards = screen.getByRole('group', { name: 'Plans' }).textContent ?? '';
    expect(cards).toMatch(/As preferred.*1 program, 1 start time.*No overlaps up to 140 %/);
    expect(cards).toMatch(/What is set now.*1 program, 2 start times.*Programs overlap/);
    press('Use these programs');
    expect(editor.snapshot().settled.programs[0]?.starts).toEqual(['03:00']);
    // The question is the same, so it is not planned again; only the current settings are evaluated.
    expect(worker.planned).toBe(1);
    expect(text()).toMatch(/Nothing. These programs are already set/);
    await waitFor(() => expect(worker.presents.at(-1)?.programs[0]?.starts).toEqual(['03:00']));
  });

  test('a better plan takes the place of the first, one that is the same as it goes, and claims come last', () => {
    open('plan', known);
    const { brief } = asked();
    const first = { ...resultOf(brief), cost: [0, 12, 0, 1, 1, 0, 0] as Cost };
    const show = (result: PlanResult) => act(() => worker.tell?.({ kind: 'result', result }));
    const names = () =>
      [...document.querySelectorAll('button.plan-card strong')].map((name) => name.textContent);
    show(first);
    expect(text()).toMatch(/12 min a week falls outside.*Trying longer hours …/);
    show({ ...first, kind: 'fewest-days', plan });
    expect(names()).toEqual(['As preferred', 'Fewest days']);
    // The better one equals another card.
    show({ ...first, plan });
    expect(names()).toEqual(['As preferred']);
    const claims = { simpler: [], short: [], hours: { outside: 12, fits: [] }, conflicts: [] };
    show({ ...first, plan, claims });
    expect(text()).toMatch(/None of the longer hours we tried is enough/);
    expect(text()).not.toMatch(/Trying longer hours/);
  });

  test('one part of a plan is kept and the rest planned around it; leaving ends the work', async () => {
    open('plan', known);
    const { brief } = asked();
    act(() => worker.tell?.({ kind: 'result', result: resultOf(brief) }));
    const ended = worker.ended;
    press('Keep only …');
    fireEvent.click(await screen.findByText('Keep only the start times'));
    // The earlier question was still under way.
    expect(worker.ended).toBe(ended + 1);
    expect(worker.asked?.options.pins).toEqual({ starts: [{ program: 'A', start: '03:00' }] });
    expect(worker.asked?.alone).toBe(true);
    cleanup();
    expect(worker.ended).toBe(ended + 2);
  });

  test.each(['plan', 'brief', 'house'] as const)(
    'what rests on rules that are not here yet is not there yet either: %s',
    (name) => {
      open(name, known, plan, { isPending: true, rulesState: 'pending' });
      expect(text()).toMatch(/Loading/);
      expect(document.querySelector('button.ant-btn-primary')).toBeNull();
      cleanup();
      open(name, known, plan, { rulesState: 'failed' });
      expect(text()).toMatch(/The local rules could not be loaded/);
      expect(text()).not.toMatch(/Plan|Export brief/);
    },
  );

  test('a brief that is refused says why', () => {
    open('plan', known);
    act(() =>
      worker.tell?.({
        kind: 'refused',
        faults: [{ path: [], code: 'not-json', reason: 'a comma is missing' }],
      }),
    );
    expect(text()).toMatch(/No plan: .*a comma is missing/);
  });
});

test('the timer’s power by its kind: a battery timer is asked for its battery and nothing of the mains', async () => {
  const tap = SHIPPED_KINDS.find(({ kind }) => kind.power === 'battery')?.kind;
  if (!tap) throw new Error('there is a battery kind');
  answers['/api/library/kinds'] = [{ id: 'k', version: 1, document: tap }];
  open('timer', EMPTY_SURVEY, emptyPlan(tap.timer));
  expect(await screen.findByText('Battery installed')).toBeTruthy();
  expect(text()).not.toMatch(/Mains|Transformer|Pump|master valve|Backup battery|Wired/);
});

test('as found asks whether the display adjusts its minutes, where the percent is not 100', () => {
  const bare = { ...plan, timer: { ...plan.timer, dialect: {} } };
  const at = (seasonalPercent: number) =>
    open('found', { ...EMPTY_SURVEY, visit }, { ...bare, settings: { seasonalPercent } });
  const QUESTION = /Do the minutes on the display change with the percent/;
  at(100);
  expect(text()).not.toMatch(QUESTION);
  cleanup();
  const editor = at(80);
  expect(text()).toMatch(QUESTION);
  press(/Yes, they change$/);
  expect(editor.snapshot().settled.timer.dialect?.runPage).toBe('adjusted');
  expect(text()).toMatch(/we work back to what was entered/);
});

describe('leave', () => {
  test('puts back only what this timer has', () => {
    const switched = () =>
      [...document.querySelectorAll('.switched')].map((one) => one.textContent ?? '').join();
    open('leave', { ...EMPTY_SURVEY, visit });
    expect(switched()).toMatch(/Sensor bypassed/);
    cleanup();
    open('leave', { ...EMPTY_SURVEY, visit }, { ...plan, settings: { sensor: 'none' } });
    expect(switched()).not.toMatch(/Sensor bypassed/);
    expect(switched()).toMatch(/Timer switched off/);
  });

  test('what is left before closing stands as rows, each with the way to it', () => {
    open('leave', { ...EMPTY_SURVEY, visit });
    const rows = screen.getByRole('list', { name: 'Before you close the visit' });
    expect(rows.textContent).toMatch(/The clock was not checked/);
    expect(rows.textContent).toMatch(/Stations 1 and 2 were not tested|Stations 1, 2 were not/);
    fireEvent.click(within(rows).getByRole('button', { name: 'Check now' }));
    expect(address()).toBe('/timers/t/clock');
  });
});

describe('the homeowner’s page', () => {
  test('waits, says that it could not be fetched, and asks again', async () => {
    answers['/api/timers/t/page'] = 'never';
    open('page');
    expect(text()).toMatch(/Loading the page/);
    cleanup();
    delete answers['/api/timers/t/page'];
    open('page');
    expect(await screen.findByRole('button', { name: 'Try again' })).toBeTruthy();
  });

  test('reads as it will print; a link can be withdrawn', async () => {
    answers['/api/timers/t/page'] = homeownerPage({
      plan,
      survey: EMPTY_SURVEY,
      kind: null,
      house: 'Sandpiper Court',
      houseNumber: null,
      language: 'en',
      company: 'Brindlewick Sprinklers',
      office: NO_OFFICE,
      allowed: null,
      today: TODAY,
      clock: '24',
    });
    const link = { id: 'l', madeAt: '2027-03-01', expiresAt: '2028-03-01', withdrawnAt: null };
    answers['/api/timers/t/links'] = [link];
    answers['/api/timers/t/links/l/withdraw'] = { ...link, withdrawnAt: '2027-03-01' };
    open('page');
    expect(await screen.findByText(/Your watering: Sandpiper Court/)).toBeTruthy();
    expect(screen.queryByText(/break the watering rules/)).toBeNull();
    const links = await screen.findByRole('list', { name: 'Links' });
    answers['/api/timers/t/links'] = [{ ...link, withdrawnAt: '2027-03-01' }];
    fireEvent.click(within(links).getByRole('button', { name: 'Revoke' }));
    await waitFor(() => expect(links.textContent).toMatch(/revoked/));
  });
});

test('a page that breaks the rules says so before it is sent', async () => {
  answers['/api/timers/t/page'] = homeownerPage({
    ...{ plan, survey: EMPTY_SURVEY, kind: null, house: 'Sandpiper Court', houseNumber: null },
    ...{ language: 'en', company: 'Brindlewick Sprinklers', office: NO_OFFICE },
    allowed: {
      house: { houseNumber: '1', supply: 'mains' },
      rules: {
        format: 'water-clock-rules',
        version: 1,
        name: 'R',
        editions: [{ from: '2020-01-01', clauses: [{ weekdays: ['wed'] }] }],
      },
    },
    ...{ today: TODAY, clock: '24' },
  });
  open('page');
  const warning = await screen.findByRole('alert');
  expect(warning.textContent).toMatch(/break the watering rules.*Mon 1 March/s);
});

describe('the logbook', () => {
  test('empty says what will stand there; unreachable says so and asks again', async () => {
    answers['/api/timers/t/visits'] = [];
    open('log');
    expect(await screen.findByText(/No closed visits yet/)).toBeTruthy();
    cleanup();
    delete answers['/api/timers/t/visits'];
    open('log');
    expect(await screen.findByText(/The logbook could not be loaded/)).toBeTruthy();
  });

  test('has its visits on a timeline, with who and what was done', async () => {
    const closed = {
      ...visit,
      closed: '2027-03-01T07:10',
      done: 'moved a start',
      tests: [
        { station: 1, result: 'waters' },
        { station: 2, result: 'dead' },
      ],
      minutes: 70,
      faults: [],
      next: [],
    };
    answers['/api/timers/t/visits'] = [{ id: 'v', by: 'Tamsin Orrowby', visit: closed }];
    open('log');
    const entry = await screen.findByRole('article');
    expect(entry.textContent).toMatch(
      /Tamsin Orrowby.*moved a start.*Tested: 1 of 2 ran well; station 2/s,
    );
  });

  test('tells two visits of one day apart by their times', async () => {
    const closed = { ...visit, closed: '2027-03-01T07:10', faults: [], next: [] };
    const later = { ...closed, began: '2027-03-01T15:00', closed: '2027-03-01T15:40' };
    answers['/api/timers/t/visits'] = [
      { id: 'w', by: 'Tamsin Orrowby', visit: later },
      { id: 'v', by: 'Tamsin Orrowby', visit: closed },
    ];
    open('log');
    fireEvent.mouseDown(await screen.findByRole('combobox', { name: 'This' }));
    const names = [...document.querySelectorAll('.ant-select-item-option')].map(
      (one) => one.textContent ?? '',
    );
    expect(names).toEqual(expect.arrayContaining([expect.stringMatching(/3:00.*as found$/)]));
    expect(new Set(names).size).toBe(names.length);
  });
});

describe('the office', () => {
  const office = (Page: ComponentType) =>
    render(
      <QueryClientProvider client={client()}>
        <PreferencesProvider>
          <MemoryRouter>
            <Page />
          </MemoryRouter>
        </PreferencesProvider>
      </QueryClientProvider>,
    );
  const line = {
    id: 't',
    name: 'Garage',
    site,
    town: 'Dunnock',
    ofSeveral: false,
    person: null,
    stations: 2,
    programs: 1,
    headline: 'A meets B on Tuesdays',
    verdict: 'overlap',
    breaches: 0,
    headroomPercent: null,
    trouble: null,
    battery: null,
    lastVisit: null,
    nextVisit: null,
    underWay: false,
    week: [],
    checked: true,
  };
  const counts = (all: number, overlap: number) => ({
    ...{ all, overlap, breach: 0, coming: 0, unset: 0, due: 0, 'under-way': 0 },
  });
  const PATHS = ['/api/timers', '/api/calendar', '/api/calendar/open'];
  const visit = {
    ...{ timerId: 't', timer: 'Garage', siteId: 's', site: 'Sandpiper Court' },
    ...{ houseNumber: '5', street: null, town: 'Dunnock', latitude: null, longitude: null },
    ...{ person: null, date: '2020-01-01', overdue: true, reasons: ['first watering'] },
    ...{ kinds: ['follow-up'], stop: null },
  };

  test.each([
    ['Today', TodayPage, /Loading today/],
    ['Sites', SitesPage, /Loading your sites/],
    ['Calendar', CalendarPage, /Loading the week/],
  ])('%s waits, and says that the server gave no answer', async (_name, Page, waiting) => {
    for (const path of PATHS) answers[path] = 'never';
    office(Page);
    expect(text()).toMatch(waiting);
    cleanup();
    for (const path of PATHS) delete answers[path];
    office(Page);
    expect(await screen.findByRole('button', { name: 'Try again' })).toBeTruthy();
  });

  test('an empty office says how to begin', async () => {
    answers['/api/timers'] = { total: 0, counts: counts(0, 0), checking: 0, lines: [] };
    answers['/api/calendar'] = { visits: [], orders: [] };
    answers['/api/calendar/open'] = { overdue: [], someDay: [] };
    office(TodayPage);
    expect(await screen.findByText(/No sites yet/)).toBeTruthy();
    cleanup();
    office(SitesPage);
    expect((await screen.findAllByText(/No sites yet/)).length).toBeGreaterThan(0);
  });

  test('a garden that overlaps needs attention today, and stands under its filter', async () => {
    const both = { ...counts(2, 1), breach: 1 };
    answers['/api/timers'] = { total: 1, counts: both, checking: 0, lines: [line] };
    answers['/api/calendar'] = { visits: [], orders: [] };
    answers['/api/calendar/open'] = { overdue: [visit], someDay: [] };
    office(TodayPage);
    const link = await screen.findByRole('link', { name: /garden overlaps/ });
    await waitFor(() => expect(link.textContent).toMatch(/^1.*Sandpiper Court/));
    expect(text()).toMatch(/Sandpiper Court.*No\. 5, Dunnock.*overdue.*first watering/);
    cleanup();
    office(SitesPage);
    await screen.findByText('A meets B on Tuesdays');
    press(/^Breaks rules 1$/);
    const asked = () => jest.mocked(fetch).mock.calls.map(([path]) => path as string);
    await waitFor(() => expect(asked().some((path) => path.includes('show=breach'))).toBe(true));
  });

  test('while gardens are checked again the list says so, and nothing is called clear that is not known to be', async () => {
    const unknown = { ...line, verdict: null, headline: 'It is being calculated.', checked: false };
    answers['/api/timers'] = { total: 1, counts: counts(40, 0), checking: 40, lines: [unknown] };
    answers['/api/calendar'] = { visits: [], orders: [] };
    answers['/api/calendar/open'] = { overdue: [], someDay: [] };
    office(TodayPage);
    expect(await screen.findByText('40 gardens are being checked.')).toBeTruthy();
    expect(text()).not.toMatch(/Every garden is clear/);
    cleanup();
    office(SitesPage);
    expect(await screen.findByText(/40 timers are being rechecked/)).toBeTruthy();
    expect(text()).toMatch(/It is being calculated/);
  });
});
