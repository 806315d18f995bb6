import {
  lengthWords,
  SECONDS_PER_DAY,
  timeWords,
  type ClockStyle,
  type Night,
  type Plan,
  type ServedStart,
  say,
} from '@water-clock/core';
import { RunsTable, stationWords, type RunRow } from './RunsTable.tsx';
import { differsFromIntent } from './stripGeometry.ts';
import { Scroll } from '../../app/platform/Scroll.tsx';

interface Props {
  readonly night: Night;
  readonly plan: Plan;
  readonly clock: ClockStyle;
}

function reallyWords(served: ServedStart | undefined, clock: ClockStyle): string {
  if (!served) return '';
  const { outcome, began, ended, intended } = served;
  if (outcome === 'lost') return say`lost`;
  const at = (moment: number | null) => timeWords((moment ?? 0) % SECONDS_PER_DAY, clock);
  if (outcome === 'cut') return say`cut off at ${at(ended)}`;
  return began === intended?.begins ? say`as set` : say`waits until ${at(began)}`;
}

const inOrder = (runs: readonly RunRow[]) =>
  [...runs].sort((a, b) => a.on - b.on || a.station - b.station);

/** The same night as a table, for screen readers and copying. */
export function NightTable({ night, plan, clock }: Props) {
  const time = (moment: number) => timeWords(moment % SECONDS_PER_DAY, clock);
  if (night.intended.length === 0) return <p className="soft">{say`No watering this night.`}</p>;
  return (
    <Scroll label={say`Night as a table`} className="night-table">
      <table className="data">
        <thead>
          <tr>
            <th>{say`Program`}</th>
            <th>{say`Start`}</th>
            <th>{say`End`}</th>
            <th>{say`Stations, in order`}</th>
            <th>{say`Overlap`}</th>
            <th>{say`What the timer does`}</th>
          </tr>
        </thead>
        <tbody>
          {night.intended.map((cycle) => (
            <tr key={`${cycle.letter}${cycle.begins}`}>
              <td>{cycle.letter}</td>
              <td>{time(cycle.begins)}</td>
              <td>{time(cycle.ends)}</td>
              <td>
                {cycle.runs
                  .map(
                    ({ station, on, off }) =>
                      `${stationWords(plan, station)} ${lengthWords(off - on)}`,
                  )
                  .join(', ')}
              </td>
              <td>
                {night.overlaps
                  .filter(({ first, second }) => [first, second].includes(cycle))
                  .map(({ first, second, from, to }) => {
                    const other = first === cycle ? second : first;
                    return `${other.letter} ${lengthWords(to - from)}`;
                  })
                  .join(', ') || say`none`}
              </td>
              <td>
                {reallyWords(
                  night.served.find(
                    ({ letter, intended }) =>
                      letter === cycle.letter && intended?.begins === cycle.begins,
                  ),
                  clock,
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {!night.condensed && (
        <RunsTable
          caption={say`Each valve as set, cycle by cycle`}
          runs={inOrder(
            night.intended.flatMap(({ letter, runs }) => runs.map((run) => ({ letter, ...run }))),
          )}
          plan={plan}
          clock={clock}
        />
      )}
      {night.condensed && (
        <p className="soft">{say`These nights are too busy to show single valves. Only the first overlaps are listed.`}</p>
      )}
      {!night.condensed && differsFromIntent(night) && (
        <RunsTable
          caption={say`Each valve as the timer actually opens it`}
          runs={night.runs}
          plan={plan}
          clock={clock}
        />
      )}
    </Scroll>
  );
}
