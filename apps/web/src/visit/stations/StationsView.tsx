import { lazy, Suspense, useState } from 'react';
import { Button } from 'antd';
import { Link, useNavigate } from 'react-router';
import {
  DEFECT_WORDS,
  HEAD_WORDS,
  isTwoWire,
  PLANT_WORDS,
  URGENCY_WORDS,
  stationRows,
  surveyOf,
  type SurveyStation,
  say,
  powerOf,
} from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { useKind } from '../timerKind/useKind.ts';
import { saveCsv } from '../../app/platform/csv.ts';
import { VisitFindings } from '../shared/VisitFindings.tsx';
import { StationList } from './StationList.tsx';
import type { StepProps } from '../steps/stepProps.ts';

const StationImport = lazy(() => import('./StationImport.tsx'));
const Decoders = lazy(() => import('./Decoders.tsx'));

const DECODER_FINDINGS = ['decoder-twice', 'no-decoder'] as const;

const WALKED = { seen: say`walked`, skipped: say`skipped` } as const;

/** What was found at a station, in a few words. */
function found({ head, plants, faults = [] }: SurveyStation): string {
  return [
    head && HEAD_WORDS[head],
    plants && PLANT_WORDS[plants],
    ...faults.map(({ fault, severity }) => `${DEFECT_WORDS[fault]} (${URGENCY_WORDS[severity]})`),
  ]
    .filter(Boolean)
    .join(', ');
}

/** The stations: the walk, its findings, and each station's switches. */
export default function StationsView(props: StepProps) {
  const { plan, survey, editor, timerId, site } = props;
  const navigate = useNavigate();
  const [importing, setImporting] = useState(false);
  const kind = useKind(plan);
  const power = powerOf(survey, kind);
  const stations = plan.stations.map(({ number }) => surveyOf(survey, number));
  const next =
    stations.find(({ walked }) => walked === undefined) ??
    stations.find(({ walked }) => walked === 'skipped') ??
    stations[0];
  const begun = stations.some(({ walked }) => walked !== undefined);
  const isOver = stations.every(({ walked }) => walked === 'seen');
  return (
    <div className="survey-view stack page-column">
      <div className="row">
        <Button
          type="primary"
          size="large"
          disabled={!next}
          onClick={() => next && void navigate(`/timers/${timerId}/walk/${next.number}`)}
        >
          {isOver
            ? say`Walk again`
            : begun
              ? say`Continue at station ${next?.number ?? ''}`
              : say`Walk stations`}
        </Button>
        <Button
          onClick={() => saveCsv(say`${site.name} stations.csv`, stationRows({ plan, survey }))}
        >{say`Stations as CSV`}</Button>
        <Button onClick={() => setImporting(true)}>{say`Stations from CSV`}</Button>
      </div>
      <ol className="walked list ruled">
        {stations.map((station) => (
          <li key={station.number}>
            <Link to={`/timers/${timerId}/walk/${station.number}`}>
              <b className="large">{station.number}</b>
              <span>
                <strong>
                  {plan.stations.find(({ number }) => number === station.number)?.name ??
                    say`no name yet`}
                </strong>
                <span className="soft"> {found(station)}</span>
              </span>
              <span className={station.walked === 'seen' ? 'bold' : 'fault'}>
                {station.walked ? WALKED[station.walked] : say`not walked`}
              </span>
            </Link>
          </li>
        ))}
      </ol>
      <h2>{say`Names, soak, flow and switches`}</h2>
      {power !== 'battery' && power !== 'adapter' && (
        <p className="caution">{say`Mains voltage inside a wall timer. Isolate it before you open the wiring compartment. Mains work is for a licensed electrician.`}</p>
      )}
      <VisitFindings {...props} only={DECODER_FINDINGS} />
      <StationList plan={plan} survey={survey} editor={editor} />
      {isTwoWire(survey, kind) && (
        <Disclosure className="two-wires" summary={say`Two-wire line and decoders`}>
          {() => (
            <Suspense>
              <Decoders {...props} />
            </Suspense>
          )}
        </Disclosure>
      )}
      {importing && (
        <Suspense>
          <StationImport
            plan={plan}
            survey={survey}
            editor={editor}
            close={() => setImporting(false)}
          />
        </Suspense>
      )}
    </div>
  );
}
