import {
  adjustedSeconds,
  lengthWords,
  monthName,
  programsByLetter,
  runEntryText,
  type Plan,
  say,
} from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';

/** Entered minutes next to actual minutes, for each percent in use. */
export function AdjustedTable({ plan, month }: { readonly plan: Plan; readonly month: number }) {
  const { timer, settings } = plan;
  const monthly = timer.seasonal.byMonth ? settings.monthlyPercent : undefined;
  const programs = programsByLetter(plan).filter(({ runs }) => runs.some((run) => run.seconds > 0));
  if (timer.seasonal.scope === 'none' || programs.length === 0) return null;
  const percentOf = (program: (typeof programs)[number]) =>
    timer.seasonal.scope === 'program'
      ? (program.seasonalPercent ?? 100)
      : (settings.seasonalPercent ?? 100);
  return (
    <Disclosure
      className="more"
      summary={
        monthly
          ? say`Minutes as entered and as run in each month`
          : say`Minutes as entered and as run in ${monthName(month)}`
      }
    >
      {() => (
        <Scroll label={say`Entered and adjusted minutes`} className="night-table">
          <table className="data">
            <thead>
              <tr>
                <th scope="col">{say`Program`}</th>
                <th scope="col">{say`Station`}</th>
                <th scope="col">{say`Entered`}</th>
                {!monthly && (
                  <>
                    <th scope="col">{say`Percent`}</th>
                    <th scope="col">{say`Runs`}</th>
                  </>
                )}
                {monthly?.map((percent, i) => (
                  <th key={i} scope="col">
                    {monthName(i + 1).slice(0, 3)} {percent} %
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {programs.flatMap((program) =>
                program.runs
                  .filter(({ seconds }) => seconds > 0)
                  .map(({ station, seconds }) => (
                    <tr key={`${program.letter}${station}`}>
                      <td>{program.letter}</td>
                      <td>
                        {station} {plan.stations.find((one) => one.number === station)?.name}
                      </td>
                      <td>{lengthWords(seconds)}</td>
                      {!monthly && (
                        <>
                          <td>{percentOf(program)} %</td>
                          <td>
                            {lengthWords(
                              adjustedSeconds(seconds, percentOf(program), timer.seasonal),
                            )}
                          </td>
                        </>
                      )}
                      {monthly?.map((percent, i) => (
                        <td key={i}>
                          {runEntryText(adjustedSeconds(seconds, percent, timer.seasonal)) || '0'}
                        </td>
                      ))}
                    </tr>
                  )),
              )}
            </tbody>
          </table>
        </Scroll>
      )}
    </Disclosure>
  );
}
