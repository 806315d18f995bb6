/** All demands of a brief: what each asks for, the brief without it, and milder forms of it, smallest change first. */
import { type Brief, wishOf } from '../brief/brief.ts';
import { DAY_RULES } from '../time/dayRules.ts';
import { TIMER_KINDS } from '../plan/shippedKinds.ts';
import { type Demand, dropped, type Milder, withWish, withTimer, PLENTY } from './demand.ts';
import { stationDemands } from './stationDemands.ts';
import { mowingDemands, ruleDemands } from './ruleDemands.ts';

function wishDemands(brief: Brief): Demand[] {
  const wish = wishOf(brief);
  const demands: Demand[] = [];
  const add = (about: Demand['about'], key: 'starts' | 'days' | 'programs') =>
    demands.push({
      path: ['wish', key],
      about,
      without: (brief) => withWish(brief, (own) => dropped(own, key)),
      *milder(brief) {
        yield { brief: withWish(brief, (own) => dropped(own, key)), what: { kind: 'wish' } };
      },
    });
  const { daysPerWeek } = brief.wish ?? {};
  if (daysPerWeek) {
    const { least, most } = daysPerWeek;
    const withDays = (brief: Brief, days: typeof daysPerWeek) =>
      withWish(brief, (own) => ({ ...own, daysPerWeek: days }));
    demands.push({
      path: ['wish', 'daysPerWeek'],
      about: 'garden-days',
      without: (brief) => withWish(brief, (own) => dropped(own, 'daysPerWeek')),
      *milder(brief) {
        for (let more = 1; more < 7; more++)
          for (const days of [
            { least: least - more, most },
            { least, most: most + more },
          ])
            if (days.least >= 1 && days.most <= 7)
              yield { brief: withDays(brief, days), what: { kind: 'garden-days', ...days } };
      },
    });
  }
  if (wish.starts !== 'any') add('starts', 'starts');
  if (wish.days !== 'any') add('day-wish', 'days');
  if (wish.programs !== 'any') add('one-program', 'programs');
  if (wish.headroomPercent > 100)
    demands.push({
      path: ['wish', 'headroomPercent'],
      about: 'headroom',
      without: (brief) => withWish(brief, (own) => ({ ...own, headroomPercent: 100 })),
      *milder(brief) {
        for (let percent = wish.headroomPercent - 5; percent >= 100; percent -= 5)
          yield {
            brief: withWish(brief, (own) => ({ ...own, headroomPercent: percent })),
            what: { kind: 'headroom', percent },
          };
      },
    });
  for (const pair of wish.apart) {
    const without = (brief: Brief) =>
      withWish(brief, (own) => ({
        ...own,
        apart: (own.apart ?? []).filter((other) => other !== pair),
      }));
    demands.push({
      path: ['wish', 'apart', wish.apart.indexOf(pair)],
      about: 'apart',
      without,
      *milder(brief) {
        yield { brief: without(brief), what: { kind: 'dropped' } };
      },
    });
  }
  return demands;
}

/** Shipped kinds that can do more than the current one. */
function* betterTimers(brief: Brief): Generator<Milder> {
  for (const timer of TIMER_KINDS)
    if (timer.stationCount >= Math.max(...brief.stations.map(({ number }) => number)))
      yield { brief: { ...brief, timer }, what: { kind: 'timer', timer } };
}

function timerDemands({ timer }: Brief): Demand[] {
  const counts = (key: 'programCount' | 'startsPerProgram', about: Demand['about']): Demand => ({
    path: ['timer', key],
    about,
    without: (brief) => withTimer(brief, { [key]: Math.max(PLENTY[key], timer[key]) }),
    *milder(brief) {
      for (const more of [1, 2, 4])
        yield {
          brief: withTimer(brief, { [key]: timer[key] + more }),
          what: { kind: 'count', count: timer[key] + more },
        };
      yield* betterTimers(brief);
    },
  });
  return [
    counts('programCount', 'program-count'),
    counts('startsPerProgram', 'start-count'),
    {
      path: ['timer', 'dayRules'],
      about: 'day-rules',
      without: (brief) =>
        withTimer(brief, {
          dayRules: [...DAY_RULES].filter((rule) => rule !== 'hours'),
          longestIntervalDays: Math.max(31, timer.longestIntervalDays),
          oddDaysSkip31: true,
        }),
      milder: betterTimers,
    },
  ];
}

/** All demands of a brief, the least dispensable first. */
export function demandsOf(brief: Brief): Demand[] {
  const offDays = brief.settings?.offDaysOfMonth ?? [];
  return [
    ...wishDemands(brief),
    ...mowingDemands(brief),
    ...(offDays.length > 0
      ? [
          {
            path: ['settings', 'offDaysOfMonth'],
            about: 'off-days',
            without: (brief: Brief) => ({
              ...brief,
              settings: { ...brief.settings, offDaysOfMonth: [] },
            }),
            *milder(brief: Brief): Generator<Milder> {
              yield {
                brief: { ...brief, settings: { ...brief.settings, offDaysOfMonth: [] } },
                what: { kind: 'dropped' },
              };
            },
          } as const,
        ]
      : []),
    ...timerDemands(brief),
    ...ruleDemands(brief.rules ?? {}),
    ...brief.stations.flatMap((station, place) =>
      station.weeklySeconds > 0 ? stationDemands(station, place) : [],
    ),
  ];
}
