/** Lines of the whole timer or of stations: cycle and soak, windows, percents, switches. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Plan, Station } from '../plan/plan.ts';
import { WEEKDAYS, parseTime } from '../time/calendar.ts';
import type { NoWaterWindow } from '../time/windows.ts';
import { monthName } from '../words/words.ts';
import {
  type PanelLine,
  type PanelNow,
  idOf,
  stationName,
  programName,
  type SettingAddress,
} from './line.ts';
import { rainDelayShown } from './rainDelay.ts';
import type { PanelValue } from './value.ts';
import { say } from '../language/say.ts';

/** Cycle and soak lines of a station or program. */
export function soakLines(plan: Plan): PanelLine[] {
  const of = (
    where: { program?: string; station?: number },
    name: string,
    from: { cycleSeconds?: number; soakSeconds?: number },
  ) =>
    (
      [
        ['longest-piece', say`longest cycle`, from.cycleSeconds ?? 0],
        ['soak', 'soak', from.cycleSeconds === undefined ? 0 : (from.soakSeconds ?? 0)],
      ] as const
    ).map(([what, words, seconds]): PanelLine => {
      const address = { of: what, ...where };
      return {
        id: idOf(address),
        setting: 'soak',
        address: address,
        name: `${name} ${words}`,
        value: { kind: 'length', seconds },
      };
    });
  const { dialect = {}, cycleSoak } = plan.timer;
  if (cycleSoak === 'station')
    return plan.stations.flatMap((station) =>
      of({ station: station.number }, say`Station ${stationName(station)}`, station),
    );
  if (cycleSoak === 'program')
    return plan.programs.flatMap((program) =>
      of({ program: program.letter }, programName(program.letter, dialect), program),
    );
  return [];
}

const windowValues = (windows: readonly NoWaterWindow[] = []): PanelValue[] =>
  windows.map(({ from, to, weekdays = WEEKDAYS }) => ({
    kind: 'hours',
    from: assertDefined(parseTime(from), 'parseTime(from)'),
    to: assertDefined(parseTime(to), 'parseTime(to)'),
    weekdays: WEEKDAYS.filter((one) => weekdays.includes(one)),
  }));
export function windowLines(plan: Plan): PanelLine[] {
  const { timer, settings, programs } = plan;
  const { dialect = {} } = timer;
  const lines = (windows: readonly NoWaterWindow[] | undefined, name: string, program?: string) => {
    const address = { of: 'windows', ...(program === undefined ? {} : { program }) } as const;
    return windowValues(windows).map((value, i): PanelLine => ({
      id: `${idOf(address)}.${i + 1}`,
      setting: 'windows',
      address: address,
      name: `${name} ${i + 1}`,
      value,
    }));
  };
  const offDays: PanelLine = {
    id: 'off-days',
    setting: 'windows',
    address: { of: 'off-days' },
    name: say`No-water dates`,
    value: { kind: 'numbers', numbers: settings.offDaysOfMonth ?? [] },
  };
  return [
    ...(timer.inWindow === 'ignore' ? [] : lines(settings.noWaterWindows, say`No-water hours`)),
    ...programs.flatMap(({ letter, noWaterWindows }) =>
      lines(noWaterWindows, say`${programName(letter, dialect)} no-water hours`, letter),
    ),
    ...(settings.offDaysOfMonth === undefined ? [] : [offDays]),
  ];
}

/** Linked stations. */
export const linkLines = ({ stations }: Plan): PanelLine[] =>
  stations.flatMap((station) =>
    station.linkedTo === undefined
      ? []
      : [
          {
            id: `linked.${station.number}`,
            setting: 'runs',
            address: { of: 'linked', station: station.number },
            name: say`Station ${stationName(station)} linked to station`,
            value: { kind: 'numbers', numbers: [station.linkedTo] },
          },
        ],
  );

export function percentLines(plan: Plan): PanelLine[] {
  const { seasonal, dialect = {} } = plan.timer;
  const line = (
    address: Extract<SettingAddress, { of: 'percent' }>,
    name: string,
    percent: number,
  ): PanelLine => ({
    id: idOf(address),
    setting: 'percent',
    address: address,
    name,
    value: { kind: 'percent', percent },
  });
  if (seasonal.scope === 'none') return [];
  if (seasonal.scope === 'program')
    return plan.programs.map(({ letter, seasonalPercent = 100 }) =>
      line(
        { of: 'percent', program: letter },
        say`${programName(letter, dialect)} percent`,
        seasonalPercent,
      ),
    );
  const { monthlyPercent, seasonalPercent = 100 } = plan.settings;
  if (seasonal.byMonth && monthlyPercent)
    return monthlyPercent.map((percent, i) =>
      line({ of: 'percent', month: i + 1 }, say`${monthName(i + 1)} percent`, percent),
    );
  return [line({ of: 'percent' }, say`Seasonal percent`, seasonalPercent)];
}

export function switchLines(
  plan: Plan,
  setting: 'pump' | 'sensor' | 'mode' | 'delay',
  now: PanelNow,
): PanelLine[] {
  const { settings, stations, timer } = plan;
  const line = (address: SettingAddress, name: string, value: PanelValue): PanelLine => ({
    id: idOf(address),
    setting,
    address: address,
    name,
    value,
  });
  const ofStation = (
    of: 'pump' | 'obeys-sensor' | 'enabled',
    words: string,
    on: (s: Station) => boolean,
  ) =>
    stations.map((station) =>
      line({ of, station: station.number }, say`Station ${stationName(station)} ${words}`, {
        kind: 'switch',
        on: on(station),
      }),
    );
  switch (setting) {
    case 'pump':
      return ofStation('pump', say`pump or master valve`, ({ pump = true }) => pump);
    case 'sensor':
      return [
        line({ of: 'sensor' }, say`Rain sensor`, {
          kind: 'sensor',
          state: settings.sensor ?? 'active',
        }),
        ...(settings.sensor === 'none'
          ? []
          : ofStation(
              'obeys-sensor',
              say`uses rain sensor`,
              ({ obeysRainSensor = true }) => obeysRainSensor,
            )),
      ];
    case 'delay':
      return [
        ...(timer.longestStationDelaySeconds > 0
          ? [
              line({ of: 'delay' }, say`Station delay`, {
                kind: 'length',
                seconds: settings.stationDelaySeconds ?? 0,
              }),
            ]
          : []),
        ...(timer.stationsAtOnce > 1
          ? [
              line({ of: 'at-once' }, say`Stations at once`, {
                kind: 'numbers',
                numbers: [settings.stationsAtOnce ?? timer.stationsAtOnce],
              }),
            ]
          : []),
      ];
    case 'mode':
      return [
        ...ofStation('enabled', say`enabled`, ({ enabled = true }) => enabled),
        line({ of: 'rain-delay' }, say`Rain delay`, rainDelayShown(settings.wateringResumes, now)),
        line({ of: 'mode' }, say`Watering`, { kind: 'switch', on: settings.mode !== 'off' }),
      ];
  }
}
