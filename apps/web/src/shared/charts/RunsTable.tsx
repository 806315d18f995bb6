import {
  lengthWords,
  SECONDS_PER_DAY,
  timeWords,
  type ClockSecond,
  type ClockStyle,
  type Plan,
  say,
} from '@water-clock/core';

/** One valve open without a break; clock seconds. */
export interface RunRow {
  /** Null: a manual run. */
  readonly letter: string | null;
  readonly station: number;
  readonly on: ClockSecond;
  readonly off: ClockSecond;
}

interface Props {
  readonly caption: string;
  readonly runs: readonly RunRow[];
  readonly plan: Plan;
  readonly clock: ClockStyle;
}

/** Number and name of a station. */
export function stationWords(plan: Plan, number: number): string {
  const name = plan.stations.find((station) => station.number === number)?.name;
  return name ? `${number} ${name}` : String(number);
}

/** Runs to the second, in order of opening. */
export function RunsTable({ caption, runs, plan, clock }: Props) {
  const time = (moment: ClockSecond) => timeWords(moment % SECONDS_PER_DAY, clock);
  return (
    <table className="data">
      <caption>{caption}</caption>
      <thead>
        <tr>
          <th scope="col">{say`Opens`}</th>
          <th scope="col">{say`Closes`}</th>
          <th scope="col">{say`Station`}</th>
          <th scope="col">{say`Runs`}</th>
          <th scope="col">{say`Program`}</th>
        </tr>
      </thead>
      <tbody>
        {runs.map(({ letter, station, on, off }) => (
          <tr key={`${letter}${station}${on}`}>
            <td>{time(on)}</td>
            <td>{time(off)}</td>
            <td>{stationWords(plan, station)}</td>
            <td>{lengthWords(off - on)}</td>
            <td>{letter ?? say`manual`}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
