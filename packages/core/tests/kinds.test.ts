/** Timer kinds: what they know of their power, the change to another kind, and the line in lists. */
import { expect, test } from '@jest/globals';
import {
  applyRecordChange,
  emptyPlan,
  EMPTY_SURVEY,
  homeownerPage,
  kindChange,
  kindLine,
  latestRainDelayEnd,
  NO_OFFICE,
  panelLines,
  powerOf,
  SHIPPED_KINDS,
  type TimerKind,
  type TimerRecord,
} from '@water-clock/core';

const named = (name: string): TimerKind => {
  const found = SHIPPED_KINDS.find(({ kind }) => kind.timer.name === name);
  if (!found) throw new Error(name);
  return found.kind;
};
const TAP = named('One-outlet tap timer');
const TWO = named('Two-outlet tap timer');
const WALL = named('Eight-station wall timer');
const after = (record: TimerRecord, kind: TimerKind, inUse: number): TimerRecord => {
  const applied = applyRecordChange(record, kindChange(record, kind, inUse));
  if (!applied.ok) throw new Error(JSON.stringify(applied.faults));
  return applied.value.record;
};

test('a timer on a battery alone loses its settings with it', () => {
  const onBattery = SHIPPED_KINDS.filter(({ kind }) => kind.power === 'battery');
  expect(onBattery.length).toBeGreaterThanOrEqual(4);
  for (const { kind } of onBattery)
    expect([kind.timer.name, kind.timer.powerLoss?.settings]).toEqual([kind.timer.name, 'factory']);
});

test('there are tap timers with four starts and weekdays', () => {
  const such = SHIPPED_KINDS.filter(
    ({ kind: { inletScreen, timer } }) =>
      inletScreen && timer.startsPerProgram >= 4 && timer.dayRules.includes('weekdays'),
  );
  expect(such.map(({ kind }) => kind.timer.stationCount)).toEqual([1, 2]);
});

test('what was noted at the timer comes before its kind', () => {
  expect(powerOf({ device: { power: 'adapter' } }, TAP)).toBe('adapter');
  expect(powerOf({}, TAP)).toBe('battery');
  expect(powerOf({}, WALL)).toBeNull();
  expect(powerOf({}, null)).toBeNull();
});

test('another kind comes with its stations and its power, and is undone in one step', () => {
  const plan = {
    ...emptyPlan(WALL.timer),
    programs: [
      {
        letter: 'A',
        starts: ['05:00'],
        days: { rule: 'daily' },
        runs: [
          { station: 1, seconds: 600 },
          { station: 5, seconds: 300 },
        ],
      },
    ],
  } as const;
  const record: TimerRecord = {
    plan,
    survey: { ...EMPTY_SURVEY, device: { power: 'mains', note: 'in the garage' } },
  };
  const { plan: changed, survey } = after(record, TWO, 2);
  expect(changed.timer.name).toBe('Two-outlet tap timer');
  expect(changed.stations.map(({ number }) => number)).toEqual([1, 2]);
  expect(changed.programs[0]?.runs).toEqual([{ station: 1, seconds: 600 }]);
  expect(survey.device).toEqual({ note: 'in the garage' });
  // The wall timer's kind does not know its power, so what was noted stays.
  expect(after(record, WALL, 6).survey.device?.power).toBe('mains');
  const applied = applyRecordChange(record, kindChange(record, TWO, 2));
  const undone = applied.ok ? applyRecordChange(applied.value.record, applied.value.inverse) : null;
  expect(undone?.ok && undone.value.record).toEqual(record);
});

test('a kind in one line', () => {
  expect(kindLine(TWO)).toBe(
    '2 stations, 2 programs, 4 starts each; every day, weekdays, every few days, odd dates and even dates; no percent',
  );
  expect(kindLine(named('Eight-station wall timer'))).toMatch(
    /^8 stations, .*; one percent for all programs$/,
  );
});

test('a tap timer’s page and key-in lines have no mains, no pump and no backup battery', () => {
  const plan = emptyPlan(TAP.timer);
  const page = (survey: TimerRecord['survey']) =>
    JSON.stringify(
      homeownerPage({
        ...{ plan, survey, kind: TAP, house: 'A house', houseNumber: null, language: 'en' },
        ...{ company: 'A company', office: NO_OFFICE, allowed: null, today: 20_000, clock: '12' },
      }),
    );
  expect(page(EMPTY_SURVEY)).not.toMatch(/mains|power cut/);
  expect(page(EMPTY_SURVEY)).toMatch(/Replace the battery once a year.*inlet screen/);
  expect(page({ ...EMPTY_SURVEY, device: { batteryDate: '2024-08-15' } })).toMatch(
    /Replace the battery by .* 15 August 2025/,
  );
  const settings = (power: 'battery' | null) =>
    panelLines(plan, {
      style: { dialect: {}, clock: '12' },
      ...{ today: 20_000, secondOfDay: 0, power },
    }).map(({ setting }) => setting);
  expect(settings(null)).toContain('pump');
  expect(settings('battery')).not.toContain('pump');
});

test('the latest end of a rain delay is that of the kind’s longest', () => {
  const now = { today: 20_000, secondOfDay: 22 * 3600 };
  const hours = { unit: 'hours', allowed: [24, 48, 72], ends: 'minute' } as const;
  expect(latestRainDelayEnd(now, hours)).toBe('2024-10-07T22:00');
  expect(latestRainDelayEnd(now, { unit: 'days', allowed: [1, 3], ends: 'midnight' })).toBe(
    '2024-10-07',
  );
  expect(latestRainDelayEnd(now, { unit: 'date', ends: 'midnight' })).toBeNull();
  expect(latestRainDelayEnd(now, undefined)).toBeNull();
});
