import { Fragment, useMemo, useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  cupResult,
  givenByMonth,
  monthName,
  monthOf,
  rainSensorOf,
  quantityWords,
  RAIN_WAYS,
  RAIN_WORDS,
  schedulingMultiplier,
  SCHOOL_WORDS,
  SCHOOLS,
  SEASON_WORDS,
  shownIn,
  surveyOf,
  unitWords,
  type RainWay,
  type RecordChange,
  type School,
  type StationMinutes,
  type Survey,
  type UnitSystem,
} from '@water-clock/core';
import { YearCurves } from '../charts/YearCurves.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { Choice } from '../fields/Choice.tsx';
import { commitWords } from '../editor/commitWords.ts';
import { NumberField } from '../fields/NumberField.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { SeasonCard } from './SeasonCard.tsx';
import { StationSteps } from './StationSteps.tsx';
import { SelectField } from '../fields/SelectField.tsx';
import { Disclosure } from '../fields/Disclosure.tsx';
import './minutes.css';

/** Schools that differ by more than this factor are shown to differ. */
const DIFFERENT = 1.5;
const MONTHS = Array.from({ length: 12 }, (_, i) => i + 1);
const WAY_WORDS = {
  entered: 'as entered',
  'penman-monteith': 'FAO Penman–Monteith',
  hargreaves: 'Hargreaves, from temperatures alone',
} as const;

const minutesText = (seconds: number | null) =>
  seconds === null ? '–' : String(Math.round(seconds / 60));

/** How far apart the schools are, where more than one says anything. */
function spread({ answers }: StationMinutes): number | null {
  const values = SCHOOLS.flatMap((school) => {
    const { weeklySeconds } = answers[school];
    return weeklySeconds !== null && weeklySeconds > 0 ? [weeklySeconds] : [];
  });
  return values.length < 2 ? null : Math.max(...values) / Math.min(...values);
}

/** The weather that the sums go by. */
function WeatherLine({ weather }: Pick<StepProps, 'weather'>) {
  const { units } = usePreferences();
  if (!weather)
    return (
      <p>
        No place is chosen, so the water balance has no weather:{' '}
        <Link to="../house" relative="path">
          choose it with the house
        </Link>
        .
      </p>
    );
  const { document, climate } = weather;
  const [way = 'entered'] = climate.ways;
  const peak = climate.etoMmPerDay.indexOf(Math.max(...climate.etoMmPerDay));
  return (
    <p className="soft">
      Weather of {document.name}: {document.source}. Reference evapotranspiration {WAY_WORDS[way]},
      at most {quantityWords(units, 'depth', climate.etoMmPerDay[peak] ?? 0)} a day in{' '}
      {monthName(peak + 1)}.
    </p>
  );
}

/** A station's year in depths, and what its programs put down, without the extra for uneven heads. */
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
    { name: 'needs beside the rain', values: year.map(({ netMmPerWeek }) => depth(netMmPerWeek)) },
    { name: 'rain that counts', values: year.map(({ rainMmPerWeek }) => depth(rainMmPerWeek)) },
    {
      name: 'given by the programs',
      values: (given ?? []).map((seconds) => depth((seconds * rate) / 3600 / multiplier)),
    },
  ];
}

export default function MinutesView(props: StepProps) {
  const { plan, survey, editor, minutes, table, weather, today } = props;
  const { units } = usePreferences();
  const [open, setOpen] = useState<number | null>(null);
  const [curve, setCurve] = useState<number | null>(null);
  const given = useMemo(() => givenByMonth(plan, today), [plan, today]);
  const month = monthOf(today);
  const note = (fields: Extract<RecordChange, { type: 'note' }>['fields']) =>
    void commitWords(editor, { type: 'note', fields });
  const setStation = (number: number, school: School) =>
    editor.commit({
      type: 'note-station',
      station: number,
      fields: { school: school === (survey.school ?? 'balance') ? null : school },
    });
  const nameOf = (number: number) =>
    plan.stations.find((station) => station.number === number)?.name ?? '';
  const known = minutes.stations.filter((stationMinutes) => stationMinutes.year !== null);
  const ofStation = known.find(({ number }) => number === curve);
  const perStation = known.flatMap(
    (stationMinutes) => curvesOf(stationMinutes, given.get(stationMinutes.number), units) ?? [],
  );
  // The site's curves: the mean of its stations', by name.
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
  const total = minutes.stations.reduce((sum, { weeklySeconds }) => sum + (weeklySeconds ?? 0), 0);
  return (
    <div className="survey-view">
      <div className="minutes-choices">
        <Choice
          label="School of this garden"
          value={survey.school ?? 'balance'}
          words={SCHOOL_WORDS}
          commit={(school: School) => note({ school })}
        />
        <SelectField
          label="100 percent is"
          value={survey.hundredMonth ?? ''}
          options={[
            [
              '',
              `the height of the season${
                minutes.hundredMonth !== null && survey.hundredMonth === undefined
                  ? ` (${monthName(minutes.hundredMonth)})`
                  : ''
              }`,
            ] as const,
            ...MONTHS.map((one) => [one, monthName(one)] as const),
          ]}
          pick={(value) => note({ hundredMonth: value === '' ? null : Number(value) })}
        />
        <Choice
          label="The season is followed"
          value={survey.season ?? 'percent'}
          words={SEASON_WORDS}
          commit={(season: NonNullable<Survey['season']>) => note({ season })}
        />
        <SelectField
          label="Rain is met by"
          value={survey.rain ?? ''}
          options={[
            ['', 'not decided'] as const,
            ...RAIN_WAYS.filter((one) => one !== 'sensor' || hasSensor).map(
              (one) => [one, RAIN_WORDS[one]] as const,
            ),
          ]}
          pick={(value) =>
            note({ rain: RAIN_WAYS.find((one): one is RainWay => one === value) ?? null })
          }
        />
      </div>
      <WeatherLine weather={weather} />
      <p className="soft">
        Thumb and weekly minutes: “{table.name}”, {table.region}; {table.source}.{' '}
        <Link to="/library/minutes">Change the table</Link>
      </p>
      <h2 className="hidden-but-read">Minutes a week</h2>
      <div className="minutes-scroll">
        <table className="minutes-table minutes-of-stations">
          <caption className="hidden-but-read">
            Minutes a week at 100 percent, by three schools
          </caption>
          <thead>
            <tr>
              <th>Station</th>
              {SCHOOLS.map((school) => (
                <th key={school}>{SCHOOL_WORDS[school]}</th>
              ))}
              <th>Needs, min a week</th>
              <th>
                <span className="hidden-but-read">Numbers</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {minutes.stations.map((stationMinutes) => {
              const { number } = stationMinutes;
              const apart = spread(stationMinutes);
              const noted = surveyOf(survey, number);
              return (
                <Fragment key={number}>
                  <tr>
                    <th scope="row">
                      <b className="station-number">{number}</b> {nameOf(number)}
                      {apart !== null && apart >= DIFFERENT && (
                        <span className="apart">differ {apart.toFixed(1)}-fold</span>
                      )}
                    </th>
                    {SCHOOLS.map((school) => (
                      <td key={school} data-label={SCHOOL_WORDS[school]}>
                        <Button
                          className="school-cell"
                          aria-pressed={stationMinutes.school === school}
                          aria-label={`Station ${number} by ${SCHOOL_WORDS[school]}: ${minutesText(stationMinutes.answers[school].weeklySeconds)} minutes a week`}
                          onClick={() => setStation(number, school)}
                        >
                          {minutesText(stationMinutes.answers[school].weeklySeconds)}
                        </Button>
                      </td>
                    ))}
                    <td className="needs-cell" data-label="Needs, min a week">
                      <NumberField
                        label={`Station ${number} needs`}
                        className="needs"
                        decimal
                        most={10_080}
                        value={
                          stationMinutes.weeklySeconds === null
                            ? null
                            : Math.round(stationMinutes.weeklySeconds / 6) / 10
                        }
                        empty="not known"
                        commit={(value) => {
                          const { weeklySeconds: _before, ...rest } = noted.overruled ?? {};
                          const overruled =
                            value === null
                              ? rest
                              : { ...rest, weeklySeconds: Math.round(value * 60) };
                          return commitWords(editor, {
                            type: 'note-station',
                            station: number,
                            fields: {
                              overruled: Object.keys(overruled).length > 0 ? overruled : null,
                            },
                          });
                        }}
                      />
                      {stationMinutes.overruled && <span className="soft">your own number</span>}
                    </td>
                    <td>
                      <Button
                        aria-expanded={open === number}
                        onClick={() => setOpen(open === number ? null : number)}
                      >
                        {open === number ? 'Close' : 'Why'}
                        <span className="hidden-but-read"> station {number}</span>
                      </Button>
                    </td>
                  </tr>
                  {open === number && (
                    <tr>
                      <td colSpan={6}>
                        <StationSteps minutes={stationMinutes} survey={survey} editor={editor} />
                        {noted.cups && !cupResult(noted.cups) && (
                          <p className="fault">The cups of this station were all empty.</p>
                        )}
                      </td>
                    </tr>
                  )}
                </Fragment>
              );
            })}
          </tbody>
          <tfoot>
            <tr>
              <th>Together</th>
              <td colSpan={3} />
              <td>{Math.round(total / 60)} min</td>
              <td />
            </tr>
          </tfoot>
        </table>
      </div>
      <section className="minutes-year">
        <div className="night-head">
          <h2>The year</h2>
          <SelectField
            value={curve ?? ''}
            options={[
              ['', 'the whole garden, mean of its stations'] as const,
              ...known.map(({ number }) => [number, `${number} ${nameOf(number)}`] as const),
            ]}
            pick={(value) => setCurve(value === '' ? null : Number(value))}
            aria-label="Whose year"
          />
        </div>
        {curves.length > 0 ? (
          <>
            <YearCurves
              label="What the garden needs, the rain, and what the programs give, month by month"
              unit={`${unitWords(units, 'depth')} a week`}
              curves={curves}
              month={month}
            />
            <Disclosure className="site-more" summary="The same as a table">
              {() => (
                <>
                  <div
                    className="minutes-scroll"
                    role="region"
                    aria-label="The year as a table"
                    tabIndex={0}
                  >
                    <table className="year-table">
                      <thead>
                        <tr>
                          <th>{unitWords(units, 'depth')} a week</th>
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
                  </div>
                </>
              )}
            </Disclosure>
          </>
        ) : (
          <p>The curve needs a place’s weather and of a station its plants and its rate.</p>
        )}
      </section>
      <section>
        <h2>Through the season</h2>
        <SeasonCard {...props} />
      </section>
    </div>
  );
}
