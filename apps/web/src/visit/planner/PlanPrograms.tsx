import { Button } from 'antd';
import {
  lengthWords,
  programsByLetter,
  startWords,
  stationWords,
  type Brief,
  type ClockStyle,
  type Pins,
  type Plan,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { ruleWords, spansWords } from './facts.ts';

interface Props {
  readonly plan: Plan;
  readonly brief: Brief;
  readonly clock: ClockStyle;
  readonly pins: Pins;
  readonly setPins: (pins: Pins) => void;
}

/** A list with an entry, or without an equal one. */
function toggled<T>(
  list: readonly T[] | undefined,
  entry: T,
  like: (item: T) => boolean,
): readonly T[] {
  const rest = (list ?? []).filter((item) => !like(item));
  return rest.length === (list ?? []).length ? [...rest, entry] : rest;
}

function Keep({ kept, what, press }: { kept: boolean; what: string; press: () => void }) {
  return (
    <Button className="keep" aria-pressed={kept} onClick={press}>
      {kept ? say`kept` : say`keep`} <span className="hidden-but-read">{what}</span>
    </Button>
  );
}

/** A plan's programs. Any part can be kept while the rest is planned again. */
export function PlanPrograms({ plan, brief, clock, pins, setPins }: Props) {
  const { order } = usePreferences();
  return (
    <div className="stack">
      {programsByLetter(plan).map((program) => {
        const { letter, starts, days, runs } = program;
        const spans = spansWords(plan, program, clock);
        return (
          <table key={letter} className="plan-program data">
            <caption>{say`Program ${letter}`}</caption>
            <tbody>
              <tr>
                <th scope="row">{say`Days`}</th>
                <td>{ruleWords(days, clock, order)}</td>
                <td>
                  {days && (
                    <Keep
                      kept={pins.days?.some((one) => one.program === letter) ?? false}
                      what={say`the days of ${letter}`}
                      press={() =>
                        setPins({
                          ...pins,
                          days: toggled(
                            pins.days,
                            { program: letter, days },
                            (one) => one.program === letter,
                          ),
                        })
                      }
                    />
                  )}
                </td>
              </tr>
              {starts.map((start, i) => (
                <tr key={start}>
                  <th scope="row">{starts.length > 1 ? say`Start ${i + 1}` : say`Start`}</th>
                  <td>
                    <strong>{startWords(start, clock)}</strong>{' '}
                    <span className="soft">{spans[i]?.slice(spans[i].indexOf('–'))}</span>
                  </td>
                  <td>
                    <Keep
                      kept={
                        pins.starts?.some((one) => one.program === letter && one.start === start) ??
                        false
                      }
                      what={say`start time ${startWords(start, clock)} of ${letter}`}
                      press={() =>
                        setPins({
                          ...pins,
                          starts: toggled(
                            pins.starts,
                            { program: letter, start },
                            (one) => one.program === letter && one.start === start,
                          ),
                        })
                      }
                    />
                  </td>
                </tr>
              ))}
              {runs.map(({ station, seconds }) => (
                <tr key={station}>
                  <th scope="row">{stationWords(brief, station)}</th>
                  <td>
                    <strong>{lengthWords(seconds)}</strong>
                  </td>
                  <td>
                    <Keep
                      kept={pins.runs?.some((one) => one.station === station) ?? false}
                      what={say`the minutes of ${stationWords(brief, station)}`}
                      press={() =>
                        setPins({
                          ...pins,
                          runs: toggled(
                            pins.runs,
                            { station, seconds },
                            (one) => one.station === station,
                          ),
                        })
                      }
                    />
                    <Button
                      className="keep"
                      aria-pressed={pins.stations?.some((one) => one.station === station) ?? false}
                      onClick={() =>
                        setPins({
                          ...pins,
                          stations: toggled(
                            pins.stations,
                            { station, program: letter },
                            (one) => one.station === station,
                          ),
                        })
                      }
                      type={
                        (pins.stations?.some((one) => one.station === station) ?? false)
                          ? 'primary'
                          : 'default'
                      }
                    >
                      {say`in ${letter}`}{' '}
                      <span className="hidden-but-read">{say`keep ${stationWords(brief, station)} there`}</span>
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        );
      })}
    </div>
  );
}
