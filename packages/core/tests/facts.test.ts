/** Facts kept in one place: rain sensor, rain delay as displayed, decoders, links, rule-of-thumb waterings, cycles. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyChange,
  applyRecordChange,
  EMPTY_SURVEY,
  emptyPlan,
  entryChange,
  isTwoWire,
  keyInLines,
  linkStationChange,
  panelHelp,
  panelLines,
  panelText,
  parsePanel,
  pieceOnTimer,
  piecesOf,
  rainDelayWords,
  readStationTable,
  readSurvey,
  readTimerKind,
  removeStationChange,
  SHIPPED_KINDS,
  SHIPPED_MINUTES,
  simulate,
  siteMinutes,
  stationRows,
  stationTableChange,
  TIMER_KINDS,
  visitFindings,
  assembleBrief,
  type PanelNow,
  type Plan,
  type RainDelayOfKind,
  type Survey,
} from '@water-clock/core';

const TODAY = 20_984;
const SIX_FORTY_FOUR = 6 * 3600 + 44 * 60;
const kind = TIMER_KINDS.find(({ linksStations }) => linksStations === true);
if (!kind) throw new Error('no kind that links stations');
const plan: Plan = {
  ...emptyPlan(kind),
  stations: [1, 2, 3].map((number) => ({ number })),
  programs: [
    {
      letter: 'A',
      starts: ['04:00'],
      runs: [
        { station: 1, seconds: 600 },
        { station: 2, seconds: 300 },
      ],
      days: { rule: 'weekdays', weekdays: ['mon', 'thu'] },
    },
  ],
};
const now = (rainDelay?: RainDelayOfKind): PanelNow => ({
  style: { dialect: {}, clock: '24', rainDelay },
  today: TODAY,
  secondOfDay: SIX_FORTY_FOUR,
});

describe('a rain delay', () => {
  const HOURS: RainDelayOfKind = { unit: 'hours', allowed: [24, 48, 72], ends: 'minute' };
  const DAYS: RainDelayOfKind = { unit: 'days', allowed: [1, 2, 3, 99, 180], ends: 'midnight' };
  const MINUTE: RainDelayOfKind = { unit: 'days', allowed: [1, 2, 3], ends: 'minute' };
  const typed = (text: string, rainDelay?: RainDelayOfKind) => {
    const value = parsePanel('rain-delay', text, now(rainDelay).style, TODAY);
    if (!value) return null;
    const change = entryChange(plan, { of: 'rain-delay' }, value, now(rainDelay));
    return change?.type === 'set-settings' ? change.settings.wateringResumes : undefined;
  };

  test.each([
    ['a day on a box that counts hours ends at the minute', '24', HOURS, '2027-06-16T06:44'],
    ['days, typed on it, too', '1 day', HOURS, '2027-06-16T06:44'],
    ['a day on a box that ends at midnight', '1', DAYS, '2027-06-16'],
    ['a day on a box that counts days by the minute', '1', MINUTE, '2027-06-16T06:44'],
    ['hours where nobody knows the box', '48 h', undefined, '2027-06-17T06:44'],
    ['a number where nobody knows the box', '2', undefined, '2027-06-17'],
    ['a date', '20 June', DAYS, '2027-06-20'],
    ['off', 'off', HOURS, null],
    ['nothing left', '0', HOURS, null],
  ] as const)('%s', (_, text, delay, resumes) => {
    expect(typed(text, delay)).toBe(resumes);
  });

  test('what cannot be one is refused, and never read as off', () => {
    for (const text of ['on', 'yes', 'rain', '1.5 d', '-3'])
      expect(parsePanel('rain-delay', text, now(HOURS).style, TODAY)).toBeNull();
    expect(panelHelp('rain-delay', now(HOURS).style)).toMatch(/48 h/);
  });

  test('is shown as the box counts it, and shown again reads the same', () => {
    const shown = (resumes: string, delay?: RainDelayOfKind) => {
      const settings = { wateringResumes: resumes };
      const line = panelLines({ ...plan, settings }, now(delay)).find(
        ({ id }) => id === 'rain-delay',
      );
      return line && panelText(line.value, now(delay).style);
    };
    expect(shown('2027-06-16T06:44', HOURS)).toBe('24 H');
    expect(shown('2027-06-17', DAYS)).toBe('2 DAYS');
    expect(shown('2027-06-16', MINUTE)).toBe('1 DAY');
    expect(shown('2027-06-20')).toBe('20 June');
    // One that has ended is off.
    expect(shown('2027-06-15T06:00', HOURS)).toBe('OFF');
    for (const delay of [HOURS, DAYS, MINUTE])
      for (const text of ['1', '2', '3']) {
        const resumes = typed(text, delay);
        const [count] = (resumes && shown(resumes, delay)?.split(' ')) || ['0'];
        expect(count).toBe(text);
      }
  });

  test('kinds say their lengths, and are read strictly', () => {
    expect(rainDelayWords(DAYS)).toBe('1 to 3, 99 or 180 days');
    expect(rainDelayWords(HOURS)).toBe('24, 48 or 72 hours');
    expect(rainDelayWords({ unit: 'days', allowed: [1], ends: 'midnight' })).toBe('1 day');
    const [shipped] = SHIPPED_KINDS;
    const read = (rainDelay: unknown) => readTimerKind({ ...shipped?.kind, rainDelay }).ok;
    expect(read({ unit: 'date', ends: 'midnight' })).toBe(true);
    expect(read({ unit: 'date', allowed: [1], ends: 'midnight' })).toBe(false);
    expect(read({ unit: 'hours', ends: 'minute' })).toBe(false);
    expect(read({ unit: 'weeks', allowed: [1], ends: 'minute' })).toBe(false);
  });

  test('a tick of the card outlasts the hours that pass', () => {
    const settings = { wateringResumes: '2027-06-17T06:44' };
    const lineAt = (secondOfDay: number) =>
      keyInLines({ ...plan, settings }, plan, { ...now(HOURS), secondOfDay }, true).find(
        ({ address }) => address.of === 'rain-delay',
      );
    const [early, late] = [lineAt(SIX_FORTY_FOUR), lineAt(SIX_FORTY_FOUR + 7200)];
    expect(early?.value).not.toEqual(late?.value);
    expect(early?.ticks).toEqual(late?.ticks);
  });
});

describe('decoders', () => {
  const noted = (...decoders: readonly (string | undefined)[]): Survey => ({
    ...EMPTY_SURVEY,
    stations: decoders.map((decoder, i) => ({ number: i + 1, ...(decoder ? { decoder } : {}) })),
  });
  const codes = (survey: Survey, twoWire = true) =>
    visitFindings(plan, survey, TODAY, { twoWire }).map((finding) =>
      'stations' in finding ? [finding.code, finding.stations] : finding.code,
    );

  test('one that two stations have, and none, are told of a two-wire timer', () => {
    expect(codes(noted('01', '02', '03'))).toEqual([]);
    expect(codes(noted('01', ' 01', undefined))).toEqual([
      ['decoder-twice', [1, 2]],
      ['no-decoder', [3]],
    ]);
    expect(codes(EMPTY_SURVEY)).toEqual([['no-decoder', [1, 2, 3]]]);
    expect(codes(EMPTY_SURVEY, false)).toEqual([]);
  });

  test('the box itself says more than its kind', () => {
    const device = { ...EMPTY_SURVEY, device: { twoWire: false } };
    expect(isTwoWire(device, { twoWire: true })).toBe(false);
    expect(isTwoWire(noted('01'), null)).toBe(true);
    expect(isTwoWire(EMPTY_SURVEY, null)).toBe(false);
  });
});

describe('linked stations', () => {
  const made = (change: Parameters<typeof applyChange>[1], on = plan) => {
    const applied = applyChange(on, change);
    if (!applied.ok) throw new Error(JSON.stringify(applied.faults));
    const back = applyChange(applied.value.plan, applied.value.inverse);
    expect(back.ok && back.value.plan).toEqual(on);
    return applied.value.plan;
  };

  test('linking takes the runs out in one step; what followed goes along; taking the leader out frees them', () => {
    const first = made(linkStationChange(plan, 3, 2));
    const second = made(linkStationChange(first, 2, 1), first);
    expect(second.programs[0]?.runs).toEqual([{ station: 1, seconds: 600 }]);
    expect(second.stations.map(({ linkedTo }) => linkedTo)).toEqual([undefined, 1, 1]);
    const free = made(removeStationChange(second, 1), second);
    expect(free.stations).toEqual([{ number: 2 }, { number: 3 }]);
    expect(made(linkStationChange(second, 2, null), second).stations[1]).toEqual({ number: 2 });
  });

  test('stand on the card, and are taken out on the panel', () => {
    const linked = made(linkStationChange(plan, 2, 1));
    const names = (target: Plan, base: Plan) =>
      keyInLines(target, base, now(), true)
        .filter(({ address }) => address.of !== 'total')
        .map(({ name, value }) => `${name}: ${panelText(value, now().style)}`);
    expect(names(linked, plan)).toContain('Station 2 linked to station: 1');
    expect(names(linked, plan).join()).not.toMatch(/A station 2/);
    expect(names(plan, linked)).toContain('Station 2 linked to station: OFF');
  });

  test('stand in the spreadsheet, with decoder and master valve, and come back from it', () => {
    const record = {
      plan: made(linkStationChange(plan, 2, 1)),
      survey: {
        ...EMPTY_SURVEY,
        stations: [
          { number: 1, decoder: '0114' },
          { number: 2, masterValve: false },
        ],
      },
    };
    const bare = { plan, survey: EMPTY_SURVEY };
    const table = readStationTable(stationRows(record), plan);
    expect(table.faults).toEqual([]);
    const taken = applyRecordChange(bare, stationTableChange(bare, table));
    expect(taken.ok && taken.value.record.plan.programs).toEqual(record.plan.programs);
    expect(taken.ok && stationRows(taken.value.record)).toEqual(stationRows(record));
  });
});

test('the switch of a sensor in an earlier document is read, and not kept', () => {
  const device = { sensors: [{ kind: 'rain', bypass: 'active' }] };
  const read = readSurvey({ stations: [], device });
  expect(read.ok && read.value.device).toEqual({ sensors: [{ kind: 'rain' }] });
  expect(
    readSurvey({ stations: [], device: { sensors: [{ kind: 'rain', bypass: 'x' }] } }).ok,
  ).toBe(false);
});

describe('thumb minutes are those of one watering', () => {
  const station = { number: 3, head: 'fixed-spray' as const };
  const weekOf = (
    survey: Partial<Survey['stations'][number]>,
    rules: Parameters<typeof siteMinutes>[4],
    number = 3,
  ) =>
    siteMinutes(
      plan,
      { ...EMPTY_SURVEY, school: 'thumb', stations: [{ ...station, number, ...survey }] },
      SHIPPED_MINUTES,
      null,
      rules,
    ).stations.find((one) => one.number === number);
  const each = SHIPPED_MINUTES.heads['fixed-spray'].watering;

  test('a week is that times the waterings: what is said, else what the programs do, else what is allowed; never assumed', () => {
    const wedSat = { weekdays: ['wed', 'sat'] } as const;
    expect(weekOf({}, wedSat)?.weeklySeconds).toBe(2 * each * 60);
    expect(weekOf({ waterings: 5 }, wedSat)?.weeklySeconds).toBe(2 * each * 60);
    expect(weekOf({ waterings: 5 }, null)?.weeklySeconds).toBe(5 * each * 60);
    expect(weekOf({ waterings: 1 }, wedSat)?.weeklySeconds).toBe(each * 60);
    // Station 1 waters on Monday and Thursday.
    expect(weekOf({}, null, 1)?.weeklySeconds).toBe(2 * each * 60);
    expect(weekOf({}, { weekdays: ['sun'] }, 1)?.weeklySeconds).toBe(each * 60);
    expect(weekOf({}, null)).toMatchObject({
      weeklySeconds: null,
      answers: { thumb: { lacking: ['waterings'] } },
    });
  });

  test('the brief asks for just so many waterings, so that a plan gives the minutes of the table', () => {
    const rules = { parity: 'odd' } as const;
    const survey: Survey = { ...EMPTY_SURVEY, school: 'thumb', stations: [station] };
    const minutes = siteMinutes(plan, survey, SHIPPED_MINUTES, null, rules);
    const brief = assembleBrief({ plan, survey }, { minutes, rules, mowing: [] });
    const own = brief.stations.find(({ number }) => number === 3);
    expect(own).toMatchObject({ weeklySeconds: 3.5 * each * 60, days: { least: 3, most: 4 } });
  });
});

describe('pieces', () => {
  test('never longer than measured, and on the timer’s step', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 7200 }),
        fc.constantFrom(1, 30, 60, 300),
        (most, step) => {
          const piece = pieceOnTimer(most, step);
          expect(piece).toBeLessThanOrEqual(most);
          expect(piece).toBeGreaterThan(0);
          if (most >= step) expect(piece % step).toBe(0);
        },
      ),
    );
    // Seven minutes less a tenth for safety, on a timer set in whole minutes.
    expect(pieceOnTimer(378, 60)).toBe(360);
  });

  test('are those that the engine runs', () => {
    const timer = { ...kind, cycleSoak: 'station' as const, stationsAtOnce: 1 };
    const one: Plan = {
      ...plan,
      timer,
      stations: [{ number: 1, cycleSeconds: 420, soakSeconds: 600 }],
      programs: plan.programs.map((program) => ({
        ...program,
        days: { rule: 'daily' as const },
        runs: [{ station: 1, seconds: 720 }],
      })),
    };
    const ran = simulate(one, TODAY, 1).runs.map(({ on, off }) => off - on);
    expect(piecesOf(720, 420)).toEqual([420, 300]);
    expect(ran).toEqual([420, 300]);
    expect(piecesOf(840, 420)).toEqual([420, 420]);
  });
});
