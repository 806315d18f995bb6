/** Messages of a visit and a diagnosis: sightings, causes, where to look, what to fix, what to ask. */
import { expect, test } from '@jest/globals';
import {
  askSentence,
  explanationSentence,
  lookSentence,
  mendSentence,
  undoneSentence,
  parseDate,
  sightingSentence,
  visitFindingSentence,
  type Plan,
  type Sighting,
  type Undone,
} from '@water-clock/core';
import type { Cause, CauseType } from '../src/diagnose/causes.ts';
import type { VisitFinding } from '../src/record/visitFindings.ts';
import { gardenFrom, randomFrom } from './faultyTimers.ts';

const ON = parseDate('2027-06-09') ?? 0;
const AT = ON * 86_400 + 15 * 3600;
const { plan: garden } = gardenFrom(randomFrom(9));
const plan: Plan = {
  ...garden,
  stations: garden.stations.map((station) =>
    station.number === 1 ? { ...station, name: 'Rose bed' } : station,
  ),
};
const speech = { plan, on: ON, clock: '12' } as const;

test('every way to tell of a sighting', () => {
  const ran: Sighting = { saw: 'ran', from: '2027-06-08T15:15' };
  const dry: Sighting = { saw: 'dry', from: '2027-06-07T21:00', to: '2027-06-08T09:00' };
  const said = [
    ran,
    { ...ran, station: 1 },
    { ...ran, station: 2, minutes: 12 },
    { ...ran, station: 1, to: '2027-06-09T07:00', times: 1 },
    { ...ran, to: '2027-06-09T07:00', times: 3 },
    { ...ran, station: 99 },
    dry,
    { ...dry, station: 1 },
    { ...dry, station: 1, ranBefore: true },
    { ...dry, station: 1, ranAfter: true },
    { ...dry, station: 1, ranBefore: true, ranAfter: true },
  ].map((sighting) => sightingSentence(sighting, speech));
  expect(said).toMatchInlineSnapshot(`
   [
     "Something ran Tue 8 June, 3:15 pm.",
     "Rose bed (station 1) ran Tue 8 June, 3:15 pm.",
     "Station 2 ran Tue 8 June, 3:15 pm, for about 12 min.",
     "Rose bed (station 1) ran once from Tue 8 June, 3:15 pm to Wed 9 June, 7:00 am.",
     "Something ran 3 times from Tue 8 June, 3:15 pm to Wed 9 June, 7:00 am.",
     "Station 99 ran Tue 8 June, 3:15 pm.",
     "Nothing ran from Mon 7 June, 9:00 pm to Tue 8 June, 9:00 am.",
     "Rose bed (station 1) did not run from Mon 7 June, 9:00 pm to Tue 8 June, 9:00 am.",
     "Rose bed (station 1) did not run from Mon 7 June, 9:00 pm to Tue 8 June, 9:00 am. It ran just before.",
     "Rose bed (station 1) did not run from Mon 7 June, 9:00 pm to Tue 8 June, 9:00 am. It ran again then.",
     "Rose bed (station 1) did not run from Mon 7 June, 9:00 pm to Tue 8 June, 9:00 am. It ran just before. It ran again then.",
   ]
  `);
});

const A = { program: 'A' };
const CAUSES: { readonly [Type in CauseType]: readonly Extract<Cause, { type: Type }>[] } = {
  clock: [
    { type: 'clock', ahead: 43_200 },
    { type: 'clock', ahead: -3600 },
    { type: 'clock', ahead: 86_400 },
    { type: 'clock', ahead: 1500 },
  ],
  'extra-start': [{ type: 'extra-start', ...A, start: '15:10' }],
  'other-start': [{ type: 'other-start', ...A, start: '04:00', to: '16:00' }],
  'extra-program': [
    {
      type: 'extra-program',
      program: {
        letter: 'C',
        starts: ['08:00'],
        runs: [{ station: 1, seconds: 600 }],
        days: { rule: 'daily' },
      },
    },
  ],
  percent: [
    { type: 'percent', percent: 50 },
    { type: 'percent', ...A, percent: 150 },
  ],
  phase: [
    { type: 'phase', ...A, days: 1 },
    { type: 'phase', ...A, days: 2 },
  ],
  days: [{ type: 'days', ...A, days: { rule: 'daily' } }],
  run: [
    { type: 'run', ...A, station: 1, seconds: 1800 },
    { type: 'run', ...A, station: 1, seconds: 0 },
  ],
  'half-set': [{ type: 'half-set', ...A }],
  'rain-delay': [{ type: 'rain-delay', until: '2027-06-12' }],
  'rain-delay-set': [{ type: 'rain-delay-set', at: AT, hours: 48 }],
  off: [{ type: 'off' }],
  sensor: [{ type: 'sensor', from: AT, to: AT + 86_400 }],
  manual: [
    { type: 'manual', station: 1, at: AT, seconds: 600 },
    { type: 'manual', station: null, at: AT, seconds: 600 },
  ],
  'manual-program': [{ type: 'manual-program', ...A, at: AT }],
  stopped: [{ type: 'stopped', at: AT }],
  outage: [{ type: 'outage', from: AT, to: AT + 5400 }],
  'percent-changed': [{ type: 'percent-changed', at: AT, before: 100, after: 150 }],
  'dead-station': [{ type: 'dead-station', station: 1 }],
  'power-failure': [{ type: 'power-failure', ahead: -AT }],
};

test('every cause: what went wrong, where to look for it, what to do', () => {
  const said = Object.values(CAUSES)
    .flat()
    .flatMap((cause: Cause) => [
      explanationSentence([cause], speech),
      `  ${lookSentence(cause, speech)}`,
      `  ${mendSentence(cause, speech)}`,
    ]);
  expect(said).toMatchInlineSnapshot(`
   [
     "The timer’s clock is 12 h fast: am and pm are swapped.",
     "  Read the clock: time, am or pm, and day of the week.",
     "  Set the clock, date and year. The day of the week confirms them.",
     "The timer’s clock is 1 h slow.",
     "  Read the clock: time, am or pm, and day of the week.",
     "  Set the clock, date and year. The day of the week confirms them.",
     "The timer’s clock is 1 day fast.",
     "  Read the clock: time, am or pm, and day of the week.",
     "  Set the clock, date and year. The day of the week confirms them.",
     "The timer’s clock is 25 min fast.",
     "  Read the clock: time, am or pm, and day of the week.",
     "  Set the clock, date and year. The day of the week confirms them.",
     "Program A has a leftover start time at 3:10 pm.",
     "  Page through every start time of program A. Is one set to 3:10 pm?",
     "  Key in the planned setting.",
     "Program A starts at 4:00 pm instead of 4:00 am.",
     "  Read each start time of program A, including am or pm.",
     "  Key in the planned setting.",
     "Program C is set but not recorded: 8:00 am, every day.",
     "  Open program C. Are all its start times off?",
     "  Key in the planned setting.",
     "The seasonal percent is 50 %.",
     "  Read the seasonal percent.",
     "  Key in the planned setting.",
     "The seasonal percent of program A is 150 %.",
     "  Read the seasonal percent.",
     "  Key in the planned setting.",
     "The days left for program A are off by 1 day.",
     "  Read the days left for program A.",
     "  Key in the planned setting.",
     "The days left for program A are off by 2 days.",
     "  Read the days left for program A.",
     "  Key in the planned setting.",
     "Program A waters every day.",
     "  Read the watering days of program A.",
     "  Key in the planned setting.",
     "Rose bed (station 1) is set to 30 min in program A.",
     "  Read the run times of program A and its total.",
     "  Key in the planned setting.",
     "Rose bed (station 1) has no run in program A.",
     "  Read the run times of program A and its total.",
     "  Key in the planned setting.",
     "Program A never waters: its start times, run times or days are missing.",
     "  Does program A have a start time, run times and watering days?",
     "  Key in the planned setting.",
     "A rain delay is on until Sat 12 June.",
     "  Does the display show a rain delay or the days left in one?",
     "  End the rain delay.",
     "Someone set a rain delay of 48 h, Wed 9 June, 3:00 pm.",
     "  Does the display show a rain delay or the days left in one?",
     "  End the rain delay.",
     "The timer is switched off.",
     "  Is the timer on or off?",
     "  Switch it on.",
     "The rain sensor stopped it.",
     "  Had it rained? Does the sensor click when you wet it? Is its switch on active?",
     "  Nothing if it had rained. Otherwise test the sensor.",
     "Someone started Rose bed (station 1) manually, Wed 9 June, 3:00 pm.",
     "  Ask who used the timer that day.",
     "  Nothing to set. Explain on the homeowner’s page how a manual run works and that it ends by itself.",
     "Someone started something manually, Wed 9 June, 3:00 pm.",
     "  Ask who used the timer that day.",
     "  Nothing to set. Explain on the homeowner’s page how a manual run works and that it ends by itself.",
     "Someone started program A manually, Wed 9 June, 3:00 pm.",
     "  Ask who used the timer that day.",
     "  Nothing to set. Explain on the homeowner’s page how a manual run works and that it ends by itself.",
     "Someone stopped the watering, Wed 9 June, 3:00 pm.",
     "  Ask who used the timer that day.",
     "  Nothing to set. Explain on the homeowner’s page how a manual run works and that it ends by itself.",
     "The power failed, Wed 9 June, 3:00 pm, and came back, Wed 9 June, 4:30 pm.",
     "  Are other clocks in the house flashing? Ask about a power cut and test the backup battery.",
     "  Check the clock, the settings and the backup battery.",
     "Someone changed the seasonal percent from 100 % to 150 % around Wed 9 June, 3:00 pm.",
     "  Ask who used the timer that day.",
     "  Set the planned percent.",
     "Rose bed (station 1) does not open: check its wiring, valve and output.",
     "  Run Rose bed (station 1) manually and listen at the valve.",
     "  Troubleshoot Rose bed (station 1).",
     "The timer lost its memory and is running its factory settings.",
     "  Is the clock flashing? Does program A show the factory settings?",
     "  Set the clock, key in all settings and check the backup battery.",
   ]
  `);
  const [clock] = CAUSES.clock;
  const [off] = CAUSES.off;
  if (!clock || !off) throw new Error('both are in the table');
  expect(explanationSentence([clock, off], speech)).toMatch(/ and | And |; /);
  expect(explanationSentence([], speech)).toBe('The timer is doing exactly what it is set to do.');
});

test('what is asked next names the station and the night', () => {
  const ask = { station: 1, from: AT, to: AT + 12 * 3600 };
  const said = askSentence(ask, speech);
  expect(said).toMatch(/Rose bed.*\?$/);
});

const UNDONE: { readonly [What in Undone['what']]: Undone } = {
  'clock-wrong': { what: 'clock-wrong', ahead: 43_200 },
  'clock-not-looked': { what: 'clock-not-looked' },
  switched: { what: 'switched', switched: 'bypass' },
  'no-as-found': { what: 'no-as-found' },
  'no-as-left': { what: 'no-as-left' },
  'as-left-is-older': { what: 'as-left-is-older' },
  'not-keyed': { what: 'not-keyed', lines: 7 },
  'not-tested': { what: 'not-tested', stations: [2, 3, 4, 8] },
};

test('what is left undone, and what it means', () => {
  expect(Object.values(UNDONE).map(undoneSentence)).toMatchInlineSnapshot(`
   [
     "The timer’s clock is 12 h fast: am and pm are swapped. It was not set, so everything runs off by as much.",
     "The clock was not checked, so all times may be off.",
     "Sensor bypassed: not put back, and no reason given.",
     "As-found settings were not saved.",
     "Final settings were not saved. The planned settings count as left.",
     "Settings changed after they were saved as left. The planned settings count as left.",
     "7 settings on the card were not keyed in. The timer does not have the planned settings.",
     "Stations 2 to 4 and 8 were not tested.",
   ]
  `);
});

const VISIT_FINDINGS: {
  readonly [Code in VisitFinding['code']]: Extract<VisitFinding, { code: Code }>;
} = {
  'clock-wrong': { severity: 'warning', code: 'clock-wrong', ahead: 43_200 },
  'total-differs': {
    severity: 'warning',
    code: 'total-differs',
    program: 'A',
    shown: 2400,
    expected: 2460,
  },
  'read-at-percent': { severity: 'warning', code: 'read-at-percent', program: 'A', percent: 80 },
  'manual-left-on': { severity: 'warning', code: 'manual-left-on' },
  'hidden-not-looked': { severity: 'warning', code: 'hidden-not-looked' },
  'saved-inside-older': { severity: 'warning', code: 'saved-inside-older' },
  'decoder-twice': { severity: 'error', code: 'decoder-twice', decoder: '0114', stations: [3, 7] },
  'no-decoder': { severity: 'warning', code: 'no-decoder', stations: [1, 2, 5] },
};

test('what the visit itself shows to be wrong', () => {
  const said = Object.values(VISIT_FINDINGS).map((finding) =>
    visitFindingSentence(finding, speech),
  );
  expect(said).toMatchInlineSnapshot(`
   [
     "The timer’s clock is 12 h fast: am and pm are swapped. Everything runs off by as much. Set the clock first.",
     "The display shows a total of 40 min for program A. Your readings add up to 41 min. Check its run times again.",
     "Program A run times were read at 80 %. If the display shows adjusted minutes, do not adjust them again.",
     "A manual run is still on. End it.",
     "Hidden programs and start times were not checked.",
     "The settings saved in the timer are not the final ones. Save them again, or a restore brings back old settings.",
     "Stations 3 and 7 have the same decoder, 0114, so they open together. Check which one is right.",
     "3 stations have no decoder recorded: 1, 2 and 5.",
   ]
  `);
});
