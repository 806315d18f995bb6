/** A visit from its record to what is left behind: noted, closed, on a page, in litres, and in calendars. */
import { describe, expect, test } from '@jest/globals';
import {
  applyRecordChange,
  askNext,
  clockReading,
  closeVisit,
  dueVisits,
  EMPTY_SURVEY,
  evidenceOf,
  explain,
  keyInLines,
  notAmong,
  notKeyed,
  readClosedVisit,
  readRecordChange,
  sightingSentence,
  simulate,
  SWITCHED,
  undoneIn,
  visitFindings,
  visitFindingSentence,
  type Plan,
  type RecordChange,
  type Sighting,
  type Survey,
  type TimerRecord,
  type Visit,
} from '@water-clock/core';
import { gardenFrom, randomFrom, TODAY } from './faultyTimers.ts';

const DAY = 86_400;
const { plan } = gardenFrom(randomFrom(11));
const at = '2027-06-15T09:00';
const visit: Visit = {
  began: at,
  asFound: { at, plan, hidden: 'none-found' },
  asLeft: { at: '2027-06-15T10:00', plan },
  tests: plan.stations.map(({ number }) => ({ station: number, result: 'waters' })),
};
const RIGHT_CLOCK = { clockShown: '2027-06-15T09:02', clockReally: '2027-06-15T09:02' };

const surveyed = (more: Partial<Visit> = {}, survey: Partial<Survey> = {}): Survey => ({
  ...EMPTY_SURVEY,
  device: RIGHT_CLOCK,
  ...survey,
  visit: { ...visit, ...more },
});

function applied(record: TimerRecord, change: RecordChange): TimerRecord {
  const made = applyRecordChange(record, change);
  if (!made.ok) throw new Error(JSON.stringify(made.faults));
  // Everything noted in a visit can be undone to the last field.
  const back = applyRecordChange(made.value.record, made.value.inverse);
  expect(back.ok && back.value.record).toEqual(record);
  return made.value.record;
}

describe('what is noted of a visit', () => {
  test('is a change with an inverse, and needs a visit that has begun', () => {
    const bare: TimerRecord = { plan, survey: EMPTY_SURVEY };
    const note: RecordChange = {
      type: 'note-visit',
      fields: { complaint: 'It comes on at three.' },
    };
    expect(applyRecordChange(bare, note)).toMatchObject({
      ok: false,
      faults: [{ path: ['visit'] }],
    });
    const begun = applied(bare, { type: 'note', fields: { visit: { began: at } } });
    const noted = applied(begun, note);
    expect(noted.survey.visit?.complaint).toBe('It comes on at three.');
    const frozen = applied(noted, {
      type: 'note-visit',
      fields: { asFound: visit.asFound ?? null },
    });
    expect(applied(frozen, { type: 'note-visit', fields: { asFound: null } })).toEqual(noted);
  });

  test.each([
    [{ complaint: 7 }, 'fields.complaint'],
    [{ began: at }, 'fields.began'],
    [{ sightings: [{ saw: 'heard', from: at }] }, 'fields.sightings.0.saw'],
    [{ sightings: [{ saw: 'ran', from: '2027-02-30T10:00' }] }, 'fields.sightings.0.from'],
    [{ sightings: [{ saw: 'ran', from: at, ranAfter: true }] }, 'fields.sightings.0.ranAfter'],
    [{ tests: [{ station: 100 }] }, 'fields.tests.0.station'],
    [{ keyIn: { scope: 'some', ticked: [] } }, 'fields.keyIn.scope'],
    [{ keyIn: { scope: 'changes', ticked: ['a', 'a'] } }, 'fields.keyIn.ticked.1'],
    [
      { asLeft: { at, plan: { ...plan, programs: [{ letter: 'A' }] } } },
      'fields.asLeft.plan.programs.0.starts',
    ],
    [{ switched: [{ what: 'bypass', putBack: 'yes' }] }, 'fields.switched.0.putBack'],
  ])('is read strictly, case %#', (fields, path) => {
    const read = readRecordChange({ type: 'note-visit', fields });
    expect(read.ok ? [] : read.faults.map((fault) => fault.path.join('.'))).toContain(path);
  });
});

describe('closing', () => {
  test('keeps what was found and left, what comes next, and which faults were mended', () => {
    const survey = surveyed(
      {},
      {
        stations: [{ number: 1, faults: [{ fault: 'leak', severity: 'soon' }] }],
        next: [{ date: '2027-09-01', reason: 'percent' }],
      },
    );
    const before = [
      { station: 1, fault: 'leak', open: true },
      { station: 2, fault: 'tilted-head', open: true },
      { station: 3, fault: 'overspray', open: false },
    ];
    const closed = closeVisit(plan, survey, '2027-06-15T10:05', [], before);
    expect(closed?.survey).toEqual({ ...survey, visit: undefined });
    expect(closed?.visit.undone).toBeUndefined();
    expect(closed?.visit.faults).toEqual([
      { station: 1, fault: 'leak', open: true },
      { station: 2, fault: 'tilted-head', open: false },
    ]);
    expect(readClosedVisit(JSON.parse(JSON.stringify(closed?.visit)))).toMatchObject({ ok: true });
  });

  test('tells every single thing that was switched, until it is put back or left so for a reason', () => {
    for (const what of SWITCHED) {
      const open = undoneIn(plan, surveyed({ switched: [{ what, putBack: false }] }));
      expect(open).toEqual([{ what: 'switched', switched: what }]);
      for (const done of [
        { what, putBack: true },
        { what, putBack: false, reason: 'winter' },
      ])
        expect(undoneIn(plan, surveyed({ switched: [done] }))).toEqual([]);
    }
  });

  test('looks at the settings too: what stands switched there is not put back by saying so', () => {
    const off: Plan = { ...plan, settings: { ...plan.settings, mode: 'off', sensor: 'bypass' } };
    const left = { asLeft: { at, plan: off } };
    const said = [{ what: 'off' as const, putBack: true }];
    expect(undoneIn(off, surveyed({ ...left, switched: said }))).toEqual([
      { what: 'switched', switched: 'bypass' },
      { what: 'switched', switched: 'off' },
    ]);
    const why = SWITCHED.map((what) => ({ what, putBack: false, reason: 'shut for the winter' }));
    expect(undoneIn(off, surveyed({ ...left, switched: why }))).toEqual([]);
  });

  test('tells what is missing, what is older than the settings, and what nobody tried', () => {
    const { asFound: _found, asLeft: _left, tests: _tests, ...bare } = visit;
    expect(undoneIn(plan, EMPTY_SURVEY)).toEqual([]);
    expect(undoneIn(plan, { ...surveyed(), visit: bare }).map(({ what }) => what)).toEqual([
      'no-as-found',
      'no-as-left',
      'not-tested',
    ]);
    const later = { ...plan, settings: { ...plan.settings, stationDelaySeconds: 10 } };
    expect(undoneIn(later, surveyed())).toEqual([{ what: 'as-left-is-older' }]);
  });

  test('a clock found wrong is told until it is keyed in; one that was looked at on an earlier visit counts as not looked at', () => {
    const wrong = { clockShown: '2027-06-15T21:02', clockReally: '2027-06-15T09:02' };
    expect(undoneIn(plan, surveyed({}, { device: wrong }))).toEqual([
      { what: 'clock-wrong', ahead: 43_200 },
    ]);
    const keyIn = { scope: 'changes' as const, ticked: ['weekday', 'time'] };
    expect(undoneIn(plan, surveyed({ keyIn }, { device: wrong }))).toEqual([]);
    const earlier = { clockShown: '2027-06-14T09:02', clockReally: '2027-06-14T09:02' };
    expect(undoneIn(plan, surveyed({}, { device: earlier }))).toEqual([
      { what: 'clock-not-looked' },
    ]);
  });

  test('a reading ends when the clock is keyed in, and with its visit', () => {
    const wrong = { clockShown: '2027-06-15T21:02', clockReally: '2027-06-15T09:02' };
    const codesOf = (survey: Survey) => visitFindings(plan, survey, TODAY).map(({ code }) => code);
    const open = surveyed({}, { device: wrong });
    expect(codesOf(open)).toContain('clock-wrong');
    const keyIn = { scope: 'changes' as const, ticked: ['time'] };
    expect(codesOf(surveyed({ keyIn }, { device: wrong }))).not.toContain('clock-wrong');
    const closed = closeVisit(plan, open, '2027-06-15T10:05', undoneIn(plan, open))?.survey;
    expect(closed?.device).toEqual(wrong);
    expect(codesOf(closed ?? open)).not.toContain('clock-wrong');
    // The next visit starts without one.
    const next: Survey = { ...(closed ?? open), visit: { began: '2027-06-20T09:00' } };
    expect(codesOf(next)).not.toContain('clock-wrong');
    expect(clockReading(next)).toBeNull();
    expect(clockReading(open)).toEqual({ ahead: 43_200, isSet: false });
  });

  test('is refused until each thing undone is said to be left; then the logbook and what is due have it', () => {
    const wrong = { clockShown: '2027-06-15T21:02', clockReally: '2027-06-15T09:02' };
    const { asLeft: _left, ...unfrozen } = visit;
    const survey: Survey = { ...surveyed({}, { device: wrong }), visit: unfrozen };
    const closed = '2027-06-15T10:05';
    const points = undoneIn(plan, survey);
    expect(points.map(({ what }) => what)).toEqual(['clock-wrong', 'no-as-left']);
    for (const point of points) {
      const others = points.filter((one) => one !== point);
      expect(closeVisit(plan, survey, closed, others)).toBeNull();
      expect(notAmong(points, others)).toEqual([point]);
    }
    const left = closeVisit(plan, survey, closed, points);
    expect(left?.visit.undone).toEqual(points);
    // The settings at closing count as left.
    expect(left?.visit.asLeft).toEqual({ at: closed, plan });
    expect(readClosedVisit(JSON.parse(JSON.stringify(left?.visit)))).toMatchObject({ ok: true });
    expect(dueVisits(left?.survey ?? EMPTY_SURVEY)).toEqual([
      { date: TODAY, reason: { kind: 'undone', point: { what: 'clock-wrong', ahead: 43_200 } } },
    ]);
  });

  test('lines of the card that were not ticked are counted, the clock and the totals apart', () => {
    const now = {
      style: { dialect: plan.timer.dialect ?? {}, clock: '12' as const },
      today: TODAY,
      secondOfDay: 0,
    };
    const later = { ...plan, settings: { ...plan.settings, mode: 'off' as const } };
    expect(notKeyed(plan, surveyed(), null, now)).toEqual([]);
    expect(notKeyed(later, surveyed(), null, now)).toEqual([{ what: 'not-keyed', lines: 1 }]);
    const [line] = keyInLines(later, plan, now, true);
    const keyIn = { scope: 'changes' as const, ticked: line?.ticks ?? [] };
    expect(notKeyed(later, surveyed({ keyIn }), null, now)).toEqual([]);
    // A line no one looked at is not known to hold the planned value; the plan says nothing of a rain sensor.
    const asFound = { at, plan, hidden: 'none-found' as const, notLooked: ['mode', 'sensor'] };
    expect(notKeyed(plan, surveyed({ asFound }), null, now)).toEqual([
      { what: 'not-keyed', lines: 1 },
    ]);
  });

  test('a visit that comes round again is due the next time, on the last day of a shorter month', () => {
    const next = [
      { date: '2027-03-31', reason: 'inlet-screen' as const, everyMonths: 2 },
      { date: '2027-09-01', reason: 'season-start' as const, everyMonths: 12 },
      { date: '2027-01-31', reason: 'percent' as const, everyMonths: 1 },
      { date: '2027-05-01', reason: 'battery' as const },
    ];
    const closed = closeVisit(plan, surveyed({}, { next }), '2027-06-30T10:05');
    expect(closed?.survey.next?.map(({ date }) => date)).toEqual([
      '2027-07-31',
      '2027-09-01',
      '2027-07-28',
      '2027-05-01',
    ]);
  });
});

test('findings of the visit itself: each with what it is about, and none where all is well', () => {
  expect(visitFindings(plan, surveyed(), TODAY)).toEqual([]);
  const clock = { clockShown: '2027-06-15T21:02', clockReally: '2027-06-15T09:00' };
  const percent: Plan = { ...plan, settings: { ...plan.settings, seasonalPercent: 140 } };
  const found = visitFindings(
    percent,
    surveyed(
      {
        asFound: { at, plan: percent, hidden: 'not-looked' },
        switched: [{ what: 'manual', putBack: false }],
        savedInside: { at: '2027-06-15T09:30', state: 'as-left' },
      },
      { device: clock },
    ),
    TODAY,
  );
  const codes = found.map(({ code }) => code);
  expect(codes[0]).toBe('clock-wrong');
  expect(codes).toEqual(
    expect.arrayContaining(['manual-left-on', 'hidden-not-looked', 'saved-inside-older']),
  );
  expect(found[0]).toMatchObject({ ahead: 43_320 });
  for (const visitFinding of found)
    expect(visitFindingSentence(visitFinding, { on: TODAY, clock: '12', plan })).toMatch(
      /^[A-Z].*\.$/,
    );
});

describe('behind a sighting', () => {
  const { plan: garden, factory } = gardenFrom(randomFrom(21));
  const runs = simulate(garden, TODAY - 6, 5).runs;

  test('stands the start that really was: of every run of five days', () => {
    expect(runs.length).toBeGreaterThan(10);
    const { cycles, runs: all } = simulate(garden, TODAY - 6, 5);
    for (const { station, on, cycle } of all) {
      const from = new Date(on * 1000).toISOString().slice(0, 16);
      const sighting = { saw: 'ran' as const, from, station };
      const [as] = explain({ plan: garden, sightings: [sighting], signs: [], ahead: 0, factory });
      expect(as?.causes).toEqual([]);
      const [behind] = as ? evidenceOf(as, [sighting]) : [];
      expect(behind).toMatchObject({
        program: cycles[cycle]?.due.letter,
        start: cycles[cycle]?.due.start,
      });
    }
  });

  test('a dry spell between two runs is told so, and agrees with the timer as it is set only there', () => {
    const moment = (second: number) => new Date(second * 1000).toISOString().slice(0, 16);
    const costs = (sighting: Sighting) =>
      explain({ plan: garden, sightings: [sighting], signs: [], ahead: 0, factory }).find(
        ({ causes: slips }) => slips.length === 0,
      )?.fits[0] ?? Infinity;
    const own = runs.filter(({ station }) => station === runs[0]?.station);
    let gaps = 0;
    own.slice(1).forEach(({ on }, i) => {
      const off = own[i]?.off ?? on;
      if (on - off < 4 * 3600) return;
      gaps += 1;
      const told = { station: own[0]?.station ?? 1, ranBefore: true, ranAfter: true };
      const dry = { saw: 'dry' as const, from: moment(off), to: moment(on), ...told };
      expect(costs(dry)).toBe(0);
      // To a few minutes, as people say it.
      expect(costs({ ...dry, from: moment(off - 300), to: moment(on + 300) })).toBe(0);
      // It did not run then: in the middle of the period.
      expect(costs({ ...dry, to: moment(on - 2 * 3600) })).toBeGreaterThan(3);
      expect(costs({ ...dry, from: moment(off + 2 * 3600) })).toBeGreaterThan(3);
      // And it did run within this.
      expect(costs({ ...dry, to: moment(on + 3600) })).toBeGreaterThan(3);
      expect(sightingSentence(dry, { plan: garden, on: TODAY, clock: '24' })).toMatch(
        /did not run from .* to .*\. It ran just before\. It ran again then\.$/,
      );
    });
    expect(gaps).toBeGreaterThan(0);
  });

  test('and what is asked next is something about which the explanations differ', () => {
    const [first] = runs;
    const hour = Math.floor(((first?.on ?? 0) + 7 * 3600) / 3600) * 3600;
    const sightings = [
      {
        saw: 'ran' as const,
        from: new Date(hour * 1000).toISOString().slice(0, 16),
        station: first?.station ?? 1,
      },
    ];
    const told = explain({ plan: garden, sightings, signs: [], ahead: null, factory });
    expect(told.length).toBeGreaterThan(2);
    const ask = askNext(
      told,
      garden.stations.map(({ number }) => number),
      TODAY * DAY,
    );
    expect(ask).not.toBeNull();
    const ran = told.map(({ world }) =>
      simulate(world.plan, TODAY - 20, 22).runs.some(
        ({ station, on, off }) =>
          station === ask?.station &&
          !world.dead.includes(station) &&
          on - world.ahead < (ask?.to ?? 0) &&
          off - world.ahead > (ask?.from ?? 0),
      ),
    );
    expect(new Set(ran).size).toBe(2);
    // If all agree, nothing is asked.
    expect(askNext(told.slice(0, 1), [1, 2, 3], TODAY * DAY)).toBeNull();
  });
});

test('what is due: visits to come, and the first watering until somebody has seen it', () => {
  const followUp = { program: 'A', due: '2027-06-16T05:00', stations: [1, 2] };
  const survey = surveyed({}, { followUp, next: [{ date: '2027-06-20', reason: 'battery' }] });
  const kinds = (survey: Survey) => dueVisits(survey).map(({ reason }) => reason.kind);
  expect(kinds(survey)).toEqual(['follow-up', 'planned']);
  expect(kinds({ ...survey, followUp: { ...followUp, seenOn: '2027-06-16' } })).toEqual([
    'planned',
  ]);
});
