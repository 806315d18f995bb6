import {
  judgeWiring,
  wireMeaning,
  wireNext,
  WIRING_WORDS,
  type Plan,
  type StationTest,
  type WireState,
  say,
} from '@water-clock/core';
import { Scroll } from '../../app/platform/Scroll.tsx';

const STATES: Readonly<Record<WireState, string>> = {
  ...WIRING_WORDS,
  low: say`Less current than the others`,
  high: say`More current than the others`,
};

interface Props {
  readonly tests: readonly StationTest[];
  readonly stations: Plan['stations'];
}

/** The wiring test by station: reading, meaning, and the next step. */
export function WiringTable({ tests, stations }: Props) {
  const judged = judgeWiring(tests);
  if (judged.length === 0) return null;
  return (
    <Scroll label={say`Wiring test`}>
      <table className="data">
        <caption>{say`Wiring test`}</caption>
        <thead>
          <tr>
            <th scope="col">{say`Station`}</th>
            <th scope="col">{say`Reading`}</th>
            <th scope="col">{say`State`}</th>
            <th scope="col">{say`Meaning and next step`}</th>
          </tr>
        </thead>
        <tbody>
          {judged.map((one) => (
            <tr key={one.station}>
              <td>
                {one.station} {stations.find(({ number }) => number === one.station)?.name ?? ''}
              </td>
              <td>{tests.find(({ station }) => station === one.station)?.reading ?? ''}</td>
              <td className={one.state === 'good' ? '' : 'fault'}>{STATES[one.state]}</td>
              <td>
                {wireMeaning(one)} <b>{wireNext(one)}</b>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}
