/** Every code as the sentence people read. A new code does not compile until it is here. */
import { expect, test } from '@jest/globals';
import { fixWords, findingSentence, parseDate, parseTime } from '@water-clock/core';
import type { Fault, FaultCode } from '../src/document/fault.ts';
import {
  type Finding,
  type FindingCode,
  type TimerLimit,
  FINDING_CODES,
} from '../src/findings/finding.ts';
import type { FixWhat } from '../src/findings/fixes.ts';
import { faultLine } from '../src/words/faultWords.ts';

const ON = parseDate('2027-06-07') ?? 0;
const DAY = ON + 2;
const MIDNIGHT = DAY * 86_400;
const speech = { on: ON, clock: '12' } as const;

const OVERLAP = {
  first: {
    letter: 'A',
    start: '04:00',
    day: DAY,
    begins: MIDNIGHT + 14_400,
    ends: MIDNIGHT + 18_420,
  },
  second: {
    letter: 'B',
    start: '05:00',
    day: DAY,
    begins: MIDNIGHT + 18_000,
    ends: MIDNIGHT + 19_800,
  },
  sharedSeconds: 420,
};

/** Data of a finding code; several codes may share one shape. */
type MessageValue<Code extends FindingCode, Any = Finding> = Any extends {
  readonly code: infer Codes;
}
  ? Code extends Codes
    ? Omit<Any, 'code' | 'severity'>
    : never
  : never;

const A = { program: 'A' };
const AT_FOUR = { ...A, start: '04:00' };
const STATION = { ...AT_FOUR, station: 3, date: DAY };

const FINDINGS: { readonly [Code in FindingCode]: readonly MessageValue<Code>[] } = {
  overlap: [{ where: {}, overlap: OVERLAP, onOverlap: 'queue' }],
  'missing-starts': [{ where: A }],
  'missing-runs': [{ where: A }],
  'missing-days': [{ where: A }],
  'same-start-twice': [{ where: AT_FOUR, times: 2 }],
  'not-on-timer': [
    { where: { ...A, station: 3 }, limit: { what: 'run-longest', given: 7200, mostSeconds: 3600 } },
  ],
  'little-headroom': [
    { where: {}, headroom: 110, wanted: 130 },
    { where: {}, headroom: null, wanted: 130 },
  ],
  'starts-taken-for-stations': [
    { where: A, starts: ['04:00', '04:10'], stations: 2 },
    { where: A, starts: ['04:00', '04:10', '04:20'], stations: 1 },
  ],
  'leftover-start': [{ where: A, times: 3 }],
  'leftover-program': [{ where: A }],
  'station-in-two-programs': [{ where: STATION, programs: ['A', 'C'] }],
  'station-in-none': [{ where: STATION }],
  'runs-off': [{ where: STATION, seconds: 900, most: 420 }],
  'soak-too-short': [{ where: STATION, seconds: 180, least: 900 }],
  'afternoon-start': [{ where: { ...A, start: '13:00' } }],
  'odd-then-odd': [{ where: A }],
  'pump-off': [{ where: STATION }],
  supply: [
    {
      where: STATION,
      at: DAY * 86_400 + 14_400,
      stations: [3, 4],
      litresPerMinute: 66,
      unknown: [],
      supply: 40,
    },
    {
      where: STATION,
      at: DAY * 86_400 + 14_400,
      stations: [3],
      litresPerMinute: 45,
      unknown: [],
      supply: 40,
    },
    {
      where: STATION,
      at: DAY * 86_400 + 14_400,
      stations: [3, 4],
      litresPerMinute: 20,
      unknown: [4],
      supply: 40,
    },
  ],
  'pump-shut': [
    { where: {}, seconds: 20, times: 7, isSure: true },
    { where: {}, seconds: 20, times: 7, isSure: false },
  ],
  'under-cover-obeys-sensor': [{ where: STATION }],
  'past-midnight': [{ where: STATION }],
  'percent-not-100': [
    { where: {}, percent: 80 },
    { where: A, percent: 80 },
  ],
  'percent-moves': [
    { where: {}, by: 'sensor', driven: null },
    {
      where: {},
      by: 'service',
      driven: { by: 'service', lowest: 20, highest: 150, overlap: null },
    },
    {
      where: {},
      by: 'sensor',
      driven: { by: 'sensor', lowest: 20, highest: 150, overlap: OVERLAP },
    },
  ],
  'rain-delay': [
    { where: {}, until: '2027-06-10' },
    { where: {}, until: '2027-06-10T14:00' },
  ],
  'timer-off': [{ where: {} }],
  'sensor-bypassed': [{ where: {} }],
  'open-ignores-sensor': [{ where: STATION }],
  'disabled-station': [{ where: STATION, programs: ['A'] }],
  'forbidden-day': [{ where: STATION }],
  'forbidden-hour': [{ where: STATION, at: parseTime('09:30') ?? 0 }],
  'too-many-days': [{ where: STATION, days: 5, most: 3 }],
  'coming-rules': [
    {
      where: { date: DAY },
      from: DAY - 3,
      rules: { weekdays: [] },
      breach: { code: 'forbidden-day', severity: 'error', where: STATION },
      programs: ['A', 'B'],
    },
    {
      where: { date: DAY },
      from: DAY - 3,
      rules: { weekdays: ['wed'] },
      breach: { code: 'forbidden-day', severity: 'error', where: STATION },
      programs: ['A'],
    },
  ],
  'mowing-day': [{ where: STATION }],
  'too-much': [
    { where: STATION, given: 3600, wanted: 3000 },
    { where: STATION, given: 3600, wanted: 0 },
  ],
  'too-little': [{ where: STATION, given: 1500, wanted: 3000 }],
  'too-few-days': [
    { where: STATION, mean: 0.98, gap: 26, least: 2 },
    { where: STATION, mean: 2, gap: 12, least: 2 },
  ],
  'not-often-enough': [
    { where: STATION, often: { times: 3, from: '09:00', to: '16:00' }, times: 1 },
  ],
  'late-finish': [{ where: AT_FOUR, ends: 26_100, notBefore: '21:00', by: '07:00' }],
};

test('every finding', () => {
  expect(Object.keys(FINDINGS).sort()).toEqual([...FINDING_CODES].sort());
  const said = Object.entries(FINDINGS).flatMap(([code, all]) =>
    all.map((finding) => {
      // Safe cast: the table is typed code by code.
      const whole = { ...finding, code, severity: 'warning' } as Finding;
      return `${code}: ${findingSentence(whole, speech)}`;
    }),
  );
  expect(said).toMatchInlineSnapshot(`
   [
     "overlap: Wed 9 June: B starts at 5:00 am while A is still running, 7 min of overlap. B waits until 5:07 am and finishes 7 min late.",
     "missing-starts: A never waters: it needs a start time.",
     "missing-runs: A never waters: it needs a run time on an enabled station.",
     "missing-days: A never waters: it needs watering days.",
     "same-start-twice: A has start time 4:00 am 2 times and waters each time. Delete the duplicates.",
     "not-on-timer: A station 3: run time 2 h is longer than this timer allows (1 h).",
     "little-headroom: No overlaps only up to 110 %; the programs should allow 130 %. Move the start times apart.",
     "little-headroom: Two cycles overlap even at the lowest percent. Move the start times apart.",
     "starts-taken-for-stations: A has 2 start times for 2 stations, each during the cycle before it. A start time runs the whole program, not one station. Keep the first.",
     "starts-taken-for-stations: A has 3 start times for one station, each during the cycle before it. A start time runs the whole program, not one station. Keep the first.",
     "leftover-start: A waters 3 times a day, but none of its stations needs that. Keep one start time if it gives enough water.",
     "leftover-program: Every station of A is also in another program. If A is left over, delete it.",
     "station-in-two-programs: Station 3 is in A and C and is watered by each of them.",
     "station-in-none: Station 3 is in no program and never waters.",
     "runs-off: Station 3 runs 15 min without a break (A, 4:00 am). Water runs off after 7 min.",
     "soak-too-short: Station 3 soaks only 3 min before it runs again (A, 4:00 am). It needs 15 min.",
     "afternoon-start: A starts at 1:00 pm. In the afternoon, much of the water is lost to wind and sun.",
     "odd-then-odd: A waters on odd dates, and this timer does not skip the 31st. It waters on the 31st and again on the 1st.",
     "pump-off: Station 3 needs the pump, but its pump switch is off. It gets little or no water.",
     "supply: Stations 3 and 4 together use 66 L/min at 4:00 am on Wed 9 June, more than the supply of 40 L/min.",
     "supply: Station 3 uses 45 L/min, more than the supply of 40 L/min.",
     "supply: Stations 3 and 4 together at 4:00 am on Wed 9 June may use more than the supply of 40 L/min. The flow of 4 is not known.",
     "pump-shut: The pump runs against closed valves for 20 s, 7 times a cycle. Set the delay to 0.",
     "pump-shut: The pump may run against closed valves for 20 s, 7 times a cycle. Find out whether it stops, or set the delay to 0.",
     "under-cover-obeys-sensor: Station 3 is under cover but uses the rain sensor. It stays dry when it rains outside.",
     "past-midnight: A runs past midnight and still waters on Wed 9 June, which is not one of its days.",
     "percent-not-100: The seasonal percent is 80 %, so run times differ from those entered.",
     "percent-not-100: The seasonal percent of A is 80 %, so its run times differ from those entered.",
     "percent-moves: A sensor changes the percent, so run times differ from the settings. Settings may be overwritten.",
     "percent-moves: An online service changes the percent, so run times differ from the settings. Settings may be overwritten. Nothing overlaps between 20 and 150 %.",
     "percent-moves: A sensor changes the percent, so run times differ from the settings. Settings may be overwritten. Between 20 and 150 %, cycles can overlap. Wed 9 June: B starts at 5:00 am while A is still running, 7 min of overlap.",
     "rain-delay: Rain delay: no watering before Thu 10 June, 12:00 am.",
     "rain-delay: Rain delay: no watering before Thu 10 June, 2:00 pm.",
     "timer-off: The timer is switched off. No watering until it is switched on.",
     "sensor-bypassed: The rain sensor is bypassed. Every station waters in the rain.",
     "open-ignores-sensor: Station 3 is in the open but ignores the rain sensor. It waters in the rain.",
     "disabled-station: Station 3 is switched off but has a run time in A. It does not water.",
     "forbidden-day: Station 3 waters on Wed 9 June (A, 4:00 am). The rules do not allow that day.",
     "forbidden-hour: Station 3 waters at 9:30 am on Wed 9 June (A, 4:00 am). The rules do not allow that hour.",
     "too-many-days: Station 3 waters on 5 days in the week of Wed 9 June. The rules allow 3.",
     "coming-rules: From Sun 6 June no watering by timer is allowed here, and A and B still water then. Switch the timer off before that day.",
     "coming-rules: From Sun 6 June other rules hold here. Station 3 waters on Wed 9 June (A, 4:00 am). The rules do not allow that day.",
     "mowing-day: Station 3 waters on Wed 9 June (A, 4:00 am), when it must be dry for mowing.",
     "too-much: Station 3 gets 1 h a week and needs 50 min: 20 % too much.",
     "too-much: Station 3 gets 1 h a week and needs 0 min: it needs none.",
     "too-little: Station 3 gets 25 min a week and needs 50 min: 50 % too little.",
     "too-few-days: Station 3 waters on about 1 day a week and needs 2 days.",
     "too-few-days: Station 3 goes up to 12 days without water. With 2 days a week it should be at most 7.",
     "not-often-enough: Station 3 should run 3 times a day, spread between 9:00 am and 4:00 pm. It does not on Wed 9 June.",
     "late-finish: A starts at 4:00 am and ends at 7:15 am. It should water between 9:00 pm and 7:00 am.",
   ]
  `);
});

const LIMITS: { readonly [What in TimerLimit['what']]: Extract<TimerLimit, { what: What }> } = {
  'start-step': { what: 'start-step', given: '04:07', stepMinutes: 15 },
  'start-count': { what: 'start-count', given: 5, most: 4 },
  'run-step': { what: 'run-step', given: 90, stepSeconds: 60 },
  'run-longest': { what: 'run-longest', given: 24_000, mostSeconds: 21_600 },
  'day-rule': { what: 'day-rule', given: 'odd', allowed: ['weekdays', 'interval'] },
  percent: { what: 'percent', given: 155, steps: [10, 20, 30] },
  'no-percent-here': { what: 'no-percent-here', given: 80 },
  'no-months': { what: 'no-months' },
  delay: { what: 'delay', given: 900, mostSeconds: 600 },
  interval: { what: 'interval', given: 20, mostDays: 14 },
  'no-soak': { what: 'no-soak', where: 'station' },
  'no-windows': { what: 'no-windows' },
  'no-links': { what: 'no-links' },
  'at-once': { what: 'at-once', given: 2, most: 1 },
};

test('every limit of a timer', () => {
  const said = Object.values(LIMITS).map((limit) =>
    findingSentence({ code: 'not-on-timer', severity: 'error', where: {}, limit }, speech),
  );
  expect(said).toMatchInlineSnapshot(`
   [
     "Start time 4:07 am does not match this timer’s 15 min steps.",
     "5 start times are set, but a program on this timer can have 4.",
     "Run time 1 min 30 s does not match this timer’s steps of 1 min.",
     "Run time 6 h 40 min is longer than this timer allows (6 h).",
     "This timer does not have the day rule "odd", only weekdays and interval.",
     "155 % cannot be set on this timer, which goes from 10 to 30 % in steps of 10.",
     "80 % cannot be set here on this timer, so it runs at 100 %.",
     "This timer has no percent by month.",
     "A delay of 15 min is longer than this timer allows (10 min).",
     "Every 20 days is longer than this timer's longest interval of 14 days.",
     "This timer has no cycle and soak by station.",
     "This timer has no no-water hours, so it waters through them.",
     "Stations cannot be linked on this timer.",
     "2 stations at once are set, but this timer can open 1.",
   ]
  `);
});

const FIXES: { readonly [What in FixWhat['what']]: Extract<FixWhat, { what: What }> } = {
  'keep-one-start': { what: 'keep-one-start', start: '04:00' },
  'move-start': { what: 'move-start', start: '04:00', to: '05:15' },
  'clear-program': { what: 'clear-program', program: 'C' },
  'take-out-run': { what: 'take-out-run', programs: ['A', 'B'] },
  'set-run': { what: 'set-run', seconds: 720 },
  'pump-on': { what: 'pump-on' },
  'ignore-sensor': { what: 'ignore-sensor' },
  'obey-sensor': { what: 'obey-sensor' },
  'sensor-active': { what: 'sensor-active' },
  'percent-100': { what: 'percent-100' },
  'end-rain-delay': { what: 'end-rain-delay' },
  'switch-on': { what: 'switch-on' },
  split: { what: 'split', program: 'A', pieceSeconds: 420, soakSeconds: 1800 },
  'without-weekday': { what: 'without-weekday', weekday: 'fri' },
  'even-dates': { what: 'even-dates' },
  'more-starts': { what: 'more-starts', starts: ['04:00', '04:36'] },
};

test('every fix, as the words on its button', () => {
  const change = { type: 'several', changes: [] } as const;
  const said = Object.values(FIXES).map((does) => fixWords({ does, change }, '12'));
  expect(said).toMatchInlineSnapshot(`
   [
     "Keep only 4:00 am",
     "Move to 5:15 am",
     "Delete program C",
     "Delete its run time in A and B",
     "Set 12 min",
     "Switch the pump on",
     "Ignore the sensor",
     "Use the sensor",
     "Activate the sensor",
     "Set 100 %",
     "End the rain delay",
     "Switch the timer on",
     "Split into 7 min cycles, soak 30 min",
     "Skip Fri",
     "Water on even dates",
     "Split into 2 starts from 4:00 am",
   ]
  `);
  // A button says what it does: it begins with a verb and fits on one line of a phone.
  for (const words of said) expect(words).toMatch(/^[A-Z][a-z]+ .{2,36}$/);
});

type Given<Code extends FaultCode> = Omit<Extract<Fault, { code: Code }>, 'code' | 'path'>;

const FAULTS: { readonly [Code in FaultCode]: readonly Given<Code>[] } = {
  'not-json': [{ reason: 'unexpected end' }],
  'wrong-type': [{ expected: 'a list', actual: 'text' }],
  'missing-field': [{ expected: 'a time such as 04:30' }],
  'unknown-field': [{ allowed: ['letter', 'starts'] }],
  'out-of-range': [
    { least: 1, most: 99, actual: 100 },
    { least: 1, most: null, actual: 0 },
    { least: 0, most: 5, above: true, actual: 0 },
  ],
  'not-one-of': [{ allowed: ['queue', 5], actual: '"wait"' }],
  'wrong-length': [{ expected: '12', actual: 3 }],
  malformed: [{ expected: 'a date such as 2027-06-01', actual: '"1 June"' }],
  repeated: [{ actual: 'station 4' }],
  'wrong-version': [{ known: 1, actual: '9' }],
  'unknown-station': [{ station: 7 }],
  'linked-to-linked': [{ station: 2 }],
  'run-of-linked': [{ station: 5, linkedTo: 4 }],
  'unknown-program': [{ program: 'D' }],
  'beyond-timer': [
    { what: 'program', last: 'C' },
    { what: 'station', last: '6' },
  ],
  'starts-with-hours-rule': [{}],
  'no-free-second': [{}],
  'too-much-work': [{}],
  'too-many-events': [{ most: 20_000 }],
  'out-of-order': [{ before: '2027-03-01T05:00:00' }],
  'outside-span': [{ from: '2027-03-01T00:00:00', to: '2027-03-03T23:59:59' }],
  'factory-not-known': [{}],
  'already-exists': [{ what: 'program A' }],
  'still-used': [{ station: 4, programs: ['A', 'B'] }],
};

test('every fault of a document', () => {
  const path = ['programs', 0, 'starts', 1];
  const said = Object.entries(FAULTS).flatMap(([code, all]) =>
    // Safe cast: the table is typed code by code.
    all.map((fault) => faultLine({ ...fault, code, path } as Fault)),
  );
  expect(said).toMatchInlineSnapshot(`
   [
     "programs[0].starts[1]: this is not JSON: unexpected end",
     "programs[0].starts[1]: found text; expected a list",
     "programs[0].starts[1]: this field is missing; expected a time such as 04:30",
     "programs[0].starts[1]: there is no field with this name; allowed: letter, starts",
     "programs[0].starts[1]: 100 is out of range; allowed: 1 to 99",
     "programs[0].starts[1]: 0 is out of range; allowed: 1 or more",
     "programs[0].starts[1]: 0 is out of range; allowed: above 0",
     "programs[0].starts[1]: "wait" is not allowed; allowed: "queue", 5",
     "programs[0].starts[1]: the length is 3; allowed: 12",
     "programs[0].starts[1]: "1 June" is not a date such as 2027-06-01",
     "programs[0].starts[1]: station 4 is listed twice; list it once",
     "programs[0].starts[1]: version 9 is not supported; use version 1",
     "programs[0].starts[1]: station 7 is not in the list of stations; add it to the list, or remove it here",
     "programs[0].starts[1]: station 2 cannot be linked to; choose a station that is not linked itself",
     "programs[0].starts[1]: station 5 is linked to station 4 and uses its run times; delete its own run time",
     "programs[0].starts[1]: there is no program D",
     "programs[0].starts[1]: this timer's last program is C",
     "programs[0].starts[1]: this timer's last station is 6",
     "programs[0].starts[1]: a program with the day rule "hours" has no starts; empty its list of starts",
     "programs[0].starts[1]: these windows cover the whole week; leave at least one second free",
     "programs[0].starts[1]: this would take too long to calculate: there are too many short cycles; make the cycles longer, use fewer start times, or ask for fewer days",
     "programs[0].starts[1]: this calendar would have more than 20000 entries; export the runs as a table instead",
     "programs[0].starts[1]: this is before the event above it, at 2027-03-01T05:00:00; list events in the order in which they happen",
     "programs[0].starts[1]: this moment is outside the simulation; allowed: 2027-03-01T00:00:00 to 2027-03-03T23:59:59",
     "programs[0].starts[1]: this timer returns to its factory settings without power, and the plan does not contain them; leave powerOff out",
     "programs[0].starts[1]: program A already exists",
     "programs[0].starts[1]: station 4 still has a run time in A and B; delete it first",
   ]
  `);
  for (const line of said) expect(line).toMatch(/^programs\[0\]\.starts\[1\]: \S/);
});
