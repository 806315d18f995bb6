/** Demands of a station: days, longest cycle, times a day, water. */
import { assertDefined } from '../document/assertDefined.ts';
import type { BriefStation } from '../brief/brief.ts';
import type { Path } from '../document/fault.ts';
import { formatTime, parseTime, SECONDS_PER_DAY } from '../time/calendar.ts';
import { type Demand, withStation, dropped } from './demand.ts';

export function stationDemands(station: BriefStation, place: number): Demand[] {
  const path: Path = ['stations', place];
  const demands: Demand[] = [];
  const { days, cycleSeconds, oftenADay } = station;
  if (days)
    demands.push({
      path: [...path, 'days'],
      about: 'days',
      station,
      without: (brief) => withStation(brief, place, (station) => dropped(station, 'days')),
      *milder(brief) {
        const isLike = ({ days: other }: BriefStation) =>
          other?.least === days.least && other.most === days.most;
        const alone = brief.stations.filter(isLike).length === 1;
        for (const alike of alone ? [false] : [false, true])
          for (let more = 1; more < 7; more++)
            for (const [least, most] of [
              [days.least - more, days.most],
              [days.least, days.most + more],
            ] as const)
              if (least >= 1 && most <= 7)
                yield {
                  brief: {
                    ...brief,
                    stations: brief.stations.map((station, i) =>
                      i === place || (alike && isLike(station))
                        ? { ...station, days: { least, most } }
                        : station,
                    ),
                  },
                  what: { kind: 'days', least, most, alike },
                };
      },
    });
  if (cycleSeconds !== undefined)
    demands.push({
      path: [...path, 'cycleSeconds'],
      about: 'cycle',
      station,
      without: (brief) =>
        withStation(brief, place, (station) => dropped(station, 'cycleSeconds', 'soakSeconds')),
      *milder(brief) {
        for (
          let seconds = cycleSeconds + 60;
          seconds < 8 * cycleSeconds + 600;
          seconds += Math.max(1, Math.floor((seconds - cycleSeconds) / 120)) * 60
        )
          yield {
            brief: withStation(brief, place, (station) => ({ ...station, cycleSeconds: seconds })),
            what: { kind: 'cycle', seconds },
          };
      },
    });
  if (oftenADay)
    demands.push({
      path: [...path, 'oftenADay'],
      about: 'often',
      station,
      without: (brief) => withStation(brief, place, (station) => dropped(station, 'oftenADay')),
      *milder(brief) {
        for (let times = oftenADay.times - 1; times >= 2; times--)
          yield {
            brief: withStation(brief, place, (station) => ({
              ...station,
              oftenADay: { ...oftenADay, times },
            })),
            what: { kind: 'times', times },
          };
        for (let hours = 1; hours <= 8; hours++) {
          const from = formatTime(
            Math.max(
              0,
              assertDefined(parseTime(oftenADay.from), 'parseTime(oftenADay.from)') - hours * 3600,
            ),
          );
          const to = formatTime(
            Math.min(
              SECONDS_PER_DAY - 60,
              assertDefined(parseTime(oftenADay.to), 'parseTime(oftenADay.to)') + hours * 3600,
            ),
          );
          yield {
            brief: withStation(brief, place, (station) => ({
              ...station,
              oftenADay: { ...oftenADay, from, to },
            })),
            what: { kind: 'span', from, to },
          };
        }
        yield {
          brief: withStation(brief, place, (station) => dropped(station, 'oftenADay')),
          what: { kind: 'dropped' },
        };
      },
    });
  demands.push({
    path: [...path, 'weeklySeconds'],
    about: 'water',
    station,
    without: (brief) => withStation(brief, place, (station) => ({ ...station, weeklySeconds: 0 })),
    *milder(brief) {
      yield {
        brief: withStation(brief, place, (station) => ({ ...station, weeklySeconds: 0 })),
        what: { kind: 'without-station' },
      };
    },
  });
  return demands;
}
