/** Read-only views: allowed hours, minutes as dots with reasons, bars, library documents, help. */
import './patience.ts';
import { afterEach, expect, jest, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { useSyncExternalStore, type ReactNode } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import {
  EMPTY_SURVEY,
  emptyPlan,
  RULES_FORMAT,
  RULES_VERSION,
  SHIPPED_MINUTES,
  siteMinutes,
  TIMER_KINDS,
  type Plan,
  type Rules,
  type Survey,
} from '@water-clock/core';
import { Bars } from '../src/shared/charts/Bars.tsx';
import { YearChart } from '../src/shared/charts/YearChart.tsx';
import StepHelp from '../src/app/frame/StepHelp.tsx';
import { AllowedDays } from '../src/visit/house/AllowedDays.tsx';
import { ReadDocument } from '../src/office/library/ReadDocument.tsx';
import { StationMinutesRows } from '../src/visit/minutes/StationMinutesRows.tsx';
import { PreferencesProvider } from '../src/app/platform/preferences.tsx';
import { HELP } from '../src/visit/steps/help.ts';
import { STEPS } from '../src/visit/steps/steps.ts';
import type { StepProps } from '../src/visit/steps/stepProps.ts';
import { START_VISIT, useStartVisit } from '../src/visit/shared/startVisit.ts';
import { editorAlone } from './editorAlone.ts';

afterEach(cleanup);

/** Monday 1 March 2027. */
const TODAY = 20_878;
const [, , kind] = TIMER_KINDS;
if (!kind) throw new Error('there is a third kind');
const plan: Plan = {
  ...emptyPlan(kind),
  stations: [{ number: 1, name: 'Front' }, { number: 2 }],
};
const survey: Survey = {
  ...EMPTY_SURVEY,
  school: 'weekly',
  stations: [
    {
      number: 1,
      head: 'fixed-spray',
      plants: 'cool-season-lawn',
      surroundings: 'full-sun',
      waterings: 3,
    },
  ],
};

const editorOf = (of: Survey = survey) => editorAlone({ plan, survey: of });

const shown = (content: ReactNode, entry: string | { pathname: string; state: unknown } = '/') =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <PreferencesProvider>
        <MemoryRouter initialEntries={[entry]}>{content}</MemoryRouter>
      </PreferencesProvider>
    </QueryClientProvider>,
  );

const RULES: Rules = {
  format: RULES_FORMAT,
  version: RULES_VERSION,
  name: 'Somewhere',
  editions: [
    {
      from: '2027-01-01',
      clauses: [
        {
          when: { parity: 'odd' },
          weekdays: ['mon', 'wed'],
          noWaterWindows: [{ from: '10:00', to: '18:00' }],
        },
      ],
    },
    { from: '2027-03-04', clauses: [{ noWatering: true }] },
  ],
};

test('fourteen days of allowed hours, with the day on which that changes', () => {
  // Safe cast for what these days read of a step.
  const props = {
    site: { houseNumber: '21', supply: 'mains', mowing: ['tue'] },
    survey: EMPTY_SURVEY,
    rules: RULES,
    today: TODAY,
  } as unknown as StepProps;
  shown(<AllowedDays {...props} />);
  const days = screen.getAllByRole('listitem').map(({ textContent }) => textContent);
  expect(days).toHaveLength(14);
  expect(days.slice(0, 5)).toEqual([
    'Todaynot from 10:00 am to 6:00 pm',
    'Tue 2no watering allowed; mowing',
    'Wed 3not from 10:00 am to 6:00 pm',
    'Thu 4no watering allowed',
    'Fri 5no watering allowed',
  ]);
});

test('minutes: the schools of a station are told, and another is chosen where its numbers are seen', () => {
  const editor = editorOf();
  function Rows() {
    const { settled, survey: noted } = useSyncExternalStore(editor.subscribe, editor.snapshot);
    const minutes = siteMinutes(settled, noted, SHIPPED_MINUTES, null);
    // Safe cast for what the rows read of a step.
    return (
      <StationMinutesRows
        {...({ plan: settled, survey: noted, editor, minutes } as unknown as StepProps)}
      />
    );
  }
  shown(<Rows />);
  const row = () => screen.getAllByRole('listitem')[0]?.textContent;
  expect(screen.getAllByRole('img')[0]?.getAttribute('aria-label')).toMatch(
    /^Minutes a week for station 1: Rule of thumb \d+, Weekly minutes \d+, Water balance –$/,
  );
  expect(row()).toMatch(/weekly minutes/);
  expect(screen.getAllByRole('listitem')[1]?.textContent).toMatch(/weekly minutes needs/);
  fireEvent.click(screen.getByRole('button', { name: 'Why station 1' }));
  const drawer = within(screen.getByRole('dialog'));
  fireEvent.click(drawer.getByText('Rule of thumb'));
  fireEvent.click(drawer.getByRole('button', { name: 'Use rule of thumb for this station' }));
  expect(editor.snapshot().survey.stations[0]?.school).toBe('thumb');
  expect(row()).toMatch(/rule of thumb/);
  fireEvent.change(drawer.getByRole('textbox', { name: /Your own value/ }), {
    target: { value: '33' },
  });
  fireEvent.blur(drawer.getByRole('textbox', { name: /Your own value/ }));
  expect(row()).toMatch(/33 minyour own value/);
});

test('a year says which dates are only possible, where an interval could not be read', async () => {
  const date = (i: number, programs: readonly string[], overlaps = false) => ({
    ...{ day: TODAY + i, programs, overlaps, held: [], forbidden: null, night: TODAY + i - 1 },
  });
  const year = [date(0, ['A', 'B'], true), date(1, ['A']), date(2, ['B']), date(3, [])];
  const chart = (possible: readonly string[]) => (
    <PreferencesProvider>
      <YearChart
        year={year}
        today={TODAY}
        letters={['A', 'B']}
        possible={possible}
        chosen={TODAY - 1}
        mark={jest.fn()}
        choose={jest.fn()}
      />
    </PreferencesProvider>
  );
  jest
    .spyOn(Element.prototype, 'getBoundingClientRect')
    .mockReturnValue(new DOMRect(0, 0, 800, 200));
  shown(chart([]));
  const at = (slider: HTMLElement) => slider.getAttribute('aria-valuetext');
  expect(at(screen.getByRole('slider'))).toMatch(/: A B, overlap$/);
  expect(screen.getByText(/^3 watering dates .* 1 of them with an overlap/)).toBeTruthy();
  cleanup();
  shown(chart(['B']));
  const slider = screen.getByRole('slider');
  expect(at(slider)).toMatch(/: A, B may water, possible overlap$/);
  expect(
    screen.getByText(/^Up to 3 watering dates .* up to 1 of them with an overlap/),
  ).toBeTruthy();
  expect([screen.getByText('A waters'), screen.getByText('B may water')]).toHaveLength(2);
  fireEvent.click(screen.getByText('Year as a table'));
  const rows = within(await screen.findByRole('table')).getAllByRole('row');
  expect(rows.slice(1).map(({ textContent }) => textContent)).toEqual([
    expect.stringMatching(/A, B may waterpossible overlap$/),
    expect.stringMatching(/Anone$/),
    expect.stringMatching(/B may waternone$/),
  ]);
  fireEvent.keyDown(slider, { key: 'ArrowRight' });
  expect(at(slider)).toMatch(/: A$/);
  jest.restoreAllMocks();
});

test('bars have their numbers in words, as a table, and as a spreadsheet', async () => {
  const made: Blob[] = [];
  URL.createObjectURL = (object) => {
    made.push(object as Blob);
    return 'blob:none';
  };
  URL.revokeObjectURL = () => undefined;
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined);
  shown(
    <Bars
      label="Water"
      unit="litres"
      series={['found', 'left']}
      bars={[
        { name: 'Front', values: [120, 80] },
        { name: 'Back', values: [null, 40] },
      ]}
      words={(value) => `${value} L`}
      file="water"
    />,
  );
  const bars = screen.getAllByRole('listitem');
  expect(bars.map(({ textContent }) => textContent)).toEqual([
    'Front120 L80 L',
    'Backnot known40 L',
  ]);
  const widths = [...document.querySelectorAll('li rect')].map((bar) => bar.getAttribute('width'));
  // The second series has a colour and a hatch.
  expect(widths).toEqual([
    '100%',
    ...['66.66', '66.66', '33.33', '33.33'].map((one) => expect.stringContaining(one)),
  ]);
  fireEvent.click(screen.getByText('Show as table'));
  expect(screen.getAllByRole('row')).toHaveLength(3);
  fireEvent.click(screen.getByRole('button', { name: 'Save as CSV' }));
  const reader = new FileReader();
  const isRead = new Promise((resolve) => (reader.onload = resolve));
  reader.readAsText(made[0] ?? new Blob());
  await isRead;
  // Safe cast: it was read as text.
  const text = reader.result as string;
  expect(
    text
      .replace(/^\uFEFF/, '')
      .split(/\r?\n/)
      .slice(0, 3),
  ).toEqual(['litres,found,left', 'Front,120,80', 'Back,,40']);
});

test('a document of the library reads as sentences', () => {
  shown(<ReadDocument document={RULES} today={TODAY} />);
  expect(document.body.textContent).toMatch(
    /In force from Fri January 1.*odd numbers: only on Mon and Wed; not from 10:00 am to 6:00 pm.*In force from Thu March 4.*no watering by timer/s,
  );
  cleanup();
  shown(
    <ReadDocument
      document={{ format: 'water-clock-kind', version: 1, timer: kind } as never}
      today={TODAY}
    />,
  );
  expect(document.body.textContent).toMatch(
    /Capacity.*8 stations, 3 programs and 4 start times per program/s,
  );
});

test('every step has its help, with a picture of the step', () => {
  for (const [path, name] of STEPS) {
    shown(<StepHelp path={path} close={() => undefined} />);
    expect(screen.getByText(HELP[path])).toBeTruthy();
    expect(screen.getByRole('img', { name: /^The step/ }).getAttribute('alt')).toContain(name);
    cleanup();
  }
});

test('an address that asks for a visit starts one, once', () => {
  const editor = editorOf();
  const commits = jest.spyOn(editor, 'commit');
  function Page() {
    useStartVisit(editor, TODAY * 86_400 + 3600);
    return null;
  }
  const page = (
    <Routes>
      <Route path="*" element={<Page />} />
    </Routes>
  );
  const { unmount } = shown(page, { pathname: '/timers/t/found', state: START_VISIT });
  expect(editor.snapshot().survey.visit).toEqual({ began: '2027-03-01T01:00' });
  expect(commits).toHaveBeenCalledTimes(1);
  unmount();
  // One under way stays.
  shown(page, { pathname: '/timers/t/found', state: START_VISIT });
  expect(commits).toHaveBeenCalledTimes(1);
});
