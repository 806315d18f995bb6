/** The page that stays with the homeowner. */
import { describe, expect, test } from '@jest/globals';
import {
  emptyPlan,
  EMPTY_SURVEY,
  formatDate,
  homeownerPage,
  NO_OFFICE,
  readOffice,
  SHIPPED_KINDS,
  simulate,
  startWords,
  type Plan,
  type Program,
  type Survey,
  type TimerKind,
} from '@water-clock/core';
import { gardenFrom, randomFrom, TODAY } from './faultyTimers.ts';

const DAY = 86_400;
const { plan } = gardenFrom(randomFrom(11));
const KIND = SHIPPED_KINDS[0]?.kind;
if (!KIND) throw new Error('no kinds');
const A: Program = {
  letter: 'A',
  starts: ['04:00'],
  runs: [{ station: 1, seconds: 1200 }],
  days: { rule: 'daily' },
};
const plain: Plan = { ...emptyPlan(KIND.timer), stations: [{ number: 1 }], programs: [A] };

describe('the homeowner’s page', () => {
  const pageOf = (plan: Plan, survey = EMPTY_SURVEY, more: Partial<TimerKind> | null = null) =>
    homeownerPage({
      plan,
      survey,
      kind: more && { ...KIND, ...more },
      house: 'A house',
      company: 'A firm',
      office: { ...NO_OFFICE, phone: '555 0199', hours: 'mornings' },
      today: TODAY,
      clock: '12',
    });

  test('tells every start and every station of it, and the picture is what runs', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const { plan: garden } = gardenFrom(randomFrom(seed));
      const page = pageOf(garden);
      garden.programs.forEach(({ letter, starts, runs }) => {
        const told = page.programs.find((pageProgram) => pageProgram.letter === letter);
        for (const start of starts) expect(told?.when).toContain(startWords(start, '12'));
        expect(told?.stations.map(({ number }) => number)).toEqual(
          runs.map(({ station }) => station),
        );
      });
      const began = simulate(garden, TODAY - 8, 16)
        .cycles.filter(
          ({ began: one }) => one !== null && one >= TODAY * DAY && one < (TODAY + 7) * DAY,
        )
        .map(({ began: one, due }) => `${due.letter} ${one ?? 0}`);
      const drawn = page.week.runs.map(
        ({ day, from, program }) => `${program} ${(TODAY + day) * DAY + from}`,
      );
      expect(drawn.sort()).toEqual(began.sort());
    }
  });

  test('says how to reach the office, and how this house is paused for rain', () => {
    const text = (rain: Survey['rain']) =>
      JSON.stringify(pageOf(plan, rain ? { ...EMPTY_SURVEY, rain } : EMPTY_SURVEY).sections);
    expect(text('sensor')).toContain('When to call A firm, 555 0199, mornings');
    expect(new Set([text('sensor'), text('delay'), text('switch-off')]).size).toBe(3);
    // A battery timer has no mains behind its cover.
    const battery = pageOf(plan, { ...EMPTY_SURVEY, device: { power: 'battery' } });
    expect(JSON.stringify(battery)).not.toMatch(/mains voltage/);
    expect(text(undefined)).toMatch(/mains voltage/);
  });

  test('tells how it waters also while it is held back', () => {
    const held: Plan = {
      ...plan,
      settings: { ...plan.settings, mode: 'off', wateringResumes: formatDate(TODAY + 30) },
    };
    expect(pageOf(held).week).toEqual(pageOf(plan).week);
  });

  test('what an office says of itself is read strictly', () => {
    expect(readOffice({ ...NO_OFFICE, phone: '555 0100' })).toMatchObject({ ok: true });
    for (const wrong of [
      { ...NO_OFFICE, phone: '' },
      { ...NO_OFFICE, fax: '1' },
      { ...NO_OFFICE, version: 2 },
      7,
    ])
      expect(readOffice(wrong).ok).toBe(false);
  });

  test('tells why it waters as it does, where there is a reason to', () => {
    const why = (more: Partial<Plan>, survey: Survey = EMPTY_SURVEY) =>
      pageOf({ ...plain, ...more }, survey).sections.flatMap(({ lines }) => lines);
    expect(why({})).not.toEqual(
      expect.arrayContaining([
        expect.stringMatching(/short runs|Drip lines|is new|Nothing waters/),
      ]),
    );
    const soaks = why({ stations: [{ number: 1, cycleSeconds: 300, soakSeconds: 600 }] });
    expect(soaks.join(' ')).toMatch(/in several short runs/);
    expect(why({ programs: [{ ...A, starts: ['02:00', '04:00'] }] }).join(' ')).toMatch(
      /in several short runs/,
    );
    expect(why({ stations: [{ number: 1, overhead: false }] }).join(' ')).toMatch(/^.*Drip lines/);
    const often = { times: 3, from: '09:00', to: '16:00' };
    const seeded = (more: object): Survey => ({
      stations: [{ number: 1, oftenADay: { ...often, ...more } }],
    });
    expect(why({}, seeded({}))).toContain('Station 1 is new and waters 3 times a day.');
    expect(why({}, seeded({ until: formatDate(TODAY + 10) })).join(' ')).toMatch(
      /waters 3 times a day until \w{3} \d+ \w+\./,
    );
    const windows = [{ from: '09:00', to: '18:00' }];
    expect(why({ settings: { noWaterWindows: windows } }).join(' ')).toMatch(
      /Nothing waters from 9:00 am to 6:00 pm/,
    );
  });

  test('a program by hours has no times of day; one start that always ends alike says when', () => {
    const hours: Program = {
      ...A,
      starts: [],
      days: { rule: 'hours', everyHours: 36, first: `${formatDate(TODAY)}T06:00` },
    };
    expect(pageOf({ ...plain, programs: [hours] }).programs[0]).toMatchObject({
      when: expect.stringMatching(/^every 36 h from Tue 15 June/),
      until: null,
    });
    expect(pageOf(plain).programs[0]).toMatchObject({ until: '4:20 am' });
    expect(
      pageOf({ ...plain, programs: [{ ...A, starts: ['04:00', '05:00'] }] }).programs[0]?.until,
    ).toBeNull();
  });

  test('without a sensor rain is waited out by the delay; how a kind is restored is told, where it can be', () => {
    const text = (settings: Plan['settings'], restore?: string) =>
      JSON.stringify(
        pageOf({ ...plain, settings }, EMPTY_SURVEY, restore === undefined ? null : { restore }),
      );
    expect(text({ sensor: 'none' })).toMatch(/rain delay/i);
    expect(text({ sensor: 'active' })).not.toBe(text({ sensor: 'none' }));
    expect(text({}, 'Hold the key for 5 s.')).toContain('Hold the key for 5 s. We can talk you');
    expect(text({}, 'None: note it on paper.')).not.toContain('saved inside');
  });
});
