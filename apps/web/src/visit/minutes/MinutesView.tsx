import { useMemo, useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  attempt,
  givenByMonth,
  meanWeeklySeconds,
  monthName,
  monthOf,
  rainSensorOf,
  quantityWords,
  RAIN_WAYS,
  RAIN_WORDS,
  schedulingMultiplier,
  SCHOOL_WORDS,
  SEASON_WORDS,
  shownIn,
  unitWords,
  type RainWay,
  type RecordChange,
  type School,
  type StationMinutes,
  type Survey,
  type UnitSystem,
  say,
} from '@water-clock/core';
import { Bars } from '../../shared/charts/Bars.tsx';
import { YearCurves } from '../../shared/charts/YearCurves.tsx';
import { saveCsv } from '../../app/platform/csv.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Choice } from '../../shared/fields/Choice.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { StepProps } from '../steps/stepProps.ts';
import { SeasonCard } from './SeasonCard.tsx';
import { TablePicker } from './TablePicker.tsx';
import { StationMinutesRows } from './StationMinutesRows.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { Later } from '../../app/platform/Later.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';
import './minutes.css';

const MONTHS = Array.from({ length: 12 }, (_, i) => i + 1);
const WAY_WORDS = {
  entered: say`as entered`,
  'penman-monteith': say`FAO Penman–Monteith`,
  hargreaves: say`Hargreaves, from temperatures alone`,
} as const;

const inMinutes = (seconds: number | null) => (seconds === null ? null : Math.round(seconds / 60));

/** Weather used in the calculation. */
function WeatherLine({ weather }: Pick<StepProps, 'weather'>) {
  const { units } = usePreferences();
  if (!weather)
    return (
      <p>
        {say`No weather town is chosen, so the water balance has no weather:`}{' '}
        <Link to="../house" relative="path">{say`choose one for the site`}</Link>.
      </p>
    );
  const { document, climate } = weather;
  const [way = 'entered'] = climate.ways;
  const peak = climate.etoMmPerDay.indexOf(Math.max(...climate.etoMmPerDay));
  return (
    <p className="soft">
      {say`Weather of ${document.name}: ${document.source}. Reference evapotranspiration ${WAY_WORDS[way]}, at most ${quantityWords(units, 'depth', climate.etoMmPerDay[peak] ?? 0)} a day in ${monthName(peak + 1)}.`}
    </p>
  );
}

/** A station's year in depths, and what its programs apply, without the extra for uneven heads. */
function curvesOf(
  stationMinutes: StationMinutes,
  given: readonly number[] | undefined,
  units: UnitSystem,
) {
  const { year, figures } = stationMinutes;
  const rate = figures.rate?.value;
  if (!year || rate === undefined) return null;
  const multiplier = schedulingMultiplier(figures.uniformity?.value ?? 0.6);
  const depth = (mm: number) => Number(shownIn(units, 'depth', mm));
  return [
    {
      name: say`need after rain`,
      values: year.map(({ netMmPerWeek }) => depth(netMmPerWeek)),
    },
    { name: say`rain that counts`, values: year.map(({ rainMmPerWeek }) => depth(rainMmPerWeek)) },
    {
      name: say`given by the programs`,
      values: (given ?? []).map((seconds) => depth((seconds * rate) / 3600 / multiplier)),
    },
  ];
}

export default function MinutesView(props: StepProps) {
  const { plan, survey, editor, minutes, table, weather, today } = props;
  const { units } = usePreferences();
  const [curve, setCurve] = useState<number | null>(null);
  const weekly = useMemo(() => {
    const worked = attempt(() => meanWeeklySeconds(plan));
    return worked.ok ? worked.value : new Map<number, number>();
  }, [plan]);
  const given = useMemo(() => givenByMonth(plan, today), [plan, today]);
  const month = monthOf(today);
  const note = (fields: Extract<RecordChange, { type: 'note' }>['fields']) =>
    void commitWords(editor, { type: 'note', fields });
  const nameOf = (number: number) =>
    plan.stations.find((station) => station.number === number)?.name ?? '';
  const known = minutes.stations.filter((stationMinutes) => stationMinutes.year !== null);
  const ofStation = known.find(({ number }) => number === curve);
  const perStation = known.flatMap(
    (stationMinutes) => curvesOf(stationMinutes, given.get(stationMinutes.number), units) ?? [],
  );
  // The site's curves: the mean over its stations, by name.
  const curves = ofStation
    ? (curvesOf(ofStation, given.get(ofStation.number), units) ?? [])
    : [...new Set(perStation.map(({ name }) => name))].map((name) => {
        const all = perStation.filter((one) => one.name === name);
        return {
          name,
          values: MONTHS.map(
            (_, i) => all.reduce((sum, { values }) => sum + (values[i] ?? 0), 0) / all.length,
          ),
        };
      });
  const hasSensor =
    rainSensorOf(plan.settings, survey.device).state !== 'none' || survey.rain === 'sensor';
  return (
    <div className="survey-view stack page-column">
      <div className="tiles fill of-150">
        <Choice
          label={say`How minutes are worked out`}
          value={survey.school ?? 'balance'}
          words={SCHOOL_WORDS}
          commit={(school: School) => note({ school })}
        />
        <SelectField
          label={say`100 % stands for`}
          value={survey.hundredMonth ?? ''}
          options={[
            [
              '',
              minutes.hundredMonth !== null && survey.hundredMonth === undefined
                ? say`highest need (${monthName(minutes.hundredMonth)})`
                : say`highest need`,
            ] as const,
            ...MONTHS.map((one) => [one, monthName(one)] as const),
          ]}
          pick={(value) => note({ hundredMonth: value === '' ? null : Number(value) })}
        />
        <Choice
          label={say`Through the year`}
          value={survey.season ?? 'percent'}
          words={SEASON_WORDS}
          commit={(season: NonNullable<Survey['season']>) => note({ season })}
        />
        <SelectField
          label={say`When it rains`}
          value={survey.rain ?? ''}
          options={[
            ['', say`not decided`] as const,
            ...RAIN_WAYS.filter((one) => one !== 'sensor' || hasSensor).map(
              (one) => [one, RAIN_WORDS[one]] as const,
            ),
          ]}
          pick={(value) =>
            note({ rain: RAIN_WAYS.find((one): one is RainWay => one === value) ?? null })
          }
        />
        <TablePicker site={props.site} timerId={props.timerId} />
      </div>
      <WeatherLine weather={weather} />
      <p className="soft">
        {say`Rule of thumb and weekly minutes: “${table.name}”, ${table.region}; ${table.source}.`}{' '}
        <Link to="/library/minutes">{say`Edit tables`}</Link>
      </p>
      <StationMinutesRows {...props} />
      <Later>
        {() => (
          <>
            <Bars
              label={say`Weekly water at 100 %`}
              unit={say`minutes`}
              series={[say`needs`, say`given by the programs`]}
              bars={minutes.stations.map(({ number, weeklySeconds }) => ({
                name: `${number} ${nameOf(number)}`.trim(),
                values: [inMinutes(weeklySeconds), inMinutes(weekly.get(number) ?? 0)],
              }))}
              words={(value) => say`${value} min`}
              file={say`${props.site.name} water of a week`}
            />
            <section className="stack near">
              <div className="night-head row">
                <h2>{say`The year`}</h2>
                <SelectField
                  value={curve ?? ''}
                  options={[
                    ['', say`whole garden, average of its stations`] as const,
                    ...known.map(({ number }) => [number, `${number} ${nameOf(number)}`] as const),
                  ]}
                  pick={(value) => setCurve(value === '' ? null : Number(value))}
                  aria-label={say`Year for`}
                />
              </div>
              {curves.length > 0 ? (
                <>
                  <YearCurves
                    label={say`Need, rain and water given by the programs, by month`}
                    unit={say`${unitWords(units, 'depth')} a week`}
                    curves={curves}
                    month={month}
                  />
                  <Disclosure className="site-more" summary={say`Show as table`}>
                    {() => (
                      <>
                        <Scroll label={say`Year as a table`}>
                          <table className="year-table data numbers">
                            <thead>
                              <tr>
                                <th>{say`${unitWords(units, 'depth')} a week`}</th>
                                {MONTHS.map((one) => (
                                  <th key={one}>{monthName(one).slice(0, 3)}</th>
                                ))}
                              </tr>
                            </thead>
                            <tbody>
                              {curves.map(({ name, values }) => (
                                <tr key={name}>
                                  <th scope="row">{name}</th>
                                  {values.map((value, i) => (
                                    <td key={i}>{value.toFixed(units === 'us' ? 2 : 1)}</td>
                                  ))}
                                </tr>
                              ))}
                            </tbody>
                          </table>
                        </Scroll>
                        <Button
                          onClick={() =>
                            saveCsv(say`${props.site.name} year.csv`, [
                              [say`${unitWords(units, 'depth')} a week`, ...MONTHS.map(monthName)],
                              ...curves.map(({ name, values }) => [name, ...values.map(String)]),
                            ])
                          }
                        >{say`Save as CSV`}</Button>
                      </>
                    )}
                  </Disclosure>
                </>
              ) : (
                <p>{say`The curve needs local weather and a station’s plants and precipitation rate.`}</p>
              )}
            </section>
            <section>
              <h2>{say`Through the year`}</h2>
              <SeasonCard {...props} />
            </section>
          </>
        )}
      </Later>
    </div>
  );
}
