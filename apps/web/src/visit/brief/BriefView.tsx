import { useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import {
  allowedWords,
  dueVisits,
  faultLine,
  DEFECT_WORDS,
  lengthWords,
  quantityWords,
  RAIN_WORDS,
  readBriefText,
  rulesSentence,
  SCHOOL_WORDS,
  SENSOR_WORDS,
  URGENCY_WORDS,
  startWords,
  SUPPLY_WORDS,
  surveyOf,
  takeBriefChange,
  unknownNeeds,
  visitSentence,
  weekdaysWords,
  wishOf,
  writeBrief,
  type Brief,
  say,
} from '@water-clock/core';
import { FileButton } from '../../shared/fields/FileButton.tsx';
import { saveFile, textOf } from '../../app/platform/files.ts';
import { Scroll } from '../../app/platform/Scroll.tsx';
import { dateIn } from '../../app/platform/dateIn.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { StepProps } from '../steps/stepProps.ts';
import { Loading } from '../../app/platform/states.tsx';
import { RULES_FAILED } from '../steps/useVisitBasis.ts';
import { useSunrise, useWholeBrief } from '../steps/useBrief.ts';
import { WishEditor } from './WishEditor.tsx';

function Stations({ brief, props }: { readonly brief: Brief; readonly props: StepProps }) {
  const { units, clock, order } = usePreferences();
  const { minutes, survey } = props;
  const bySchool = (number: number) => {
    const stationMinutes = minutes.stations.find((each) => each.number === number);
    return stationMinutes?.overruled
      ? say`own value`
      : stationMinutes
        ? SCHOOL_WORDS[stationMinutes.school].toLowerCase()
        : '';
  };
  return (
    <Scroll label={say`Station needs`}>
      <table className="data">
        <thead>
          <tr>
            <th>{say`Station`}</th>
            <th>{say`Weekly need`}</th>
            <th>{say`Longest cycle`}</th>
            <th>{say`More`}</th>
          </tr>
        </thead>
        <tbody>
          {brief.stations.map((station) => {
            const { faults = [] } = surveyOf(survey, station.number);
            const unknown = unknownNeeds(minutes).includes(station.number);
            const more = [
              station.group,
              station.overhead === false && say`drip`,
              station.flowLpm !== undefined && quantityWords(units, 'flow', station.flowLpm),
              station.days && say`${station.days.least} to ${station.days.most} days a week`,
              station.oftenADay &&
                (station.oftenADay.until
                  ? say`${station.oftenADay.times} times a day, ${startWords(station.oftenADay.from, clock)} to ${startWords(station.oftenADay.to, clock)}, until ${dateIn(station.oftenADay.until, order)}`
                  : say`${station.oftenADay.times} times a day, ${startWords(station.oftenADay.from, clock)} to ${startWords(station.oftenADay.to, clock)}`),
              ...faults.map(
                ({ fault, severity }) => `${DEFECT_WORDS[fault]} (${URGENCY_WORDS[severity]})`,
              ),
            ].filter(Boolean);
            return (
              <tr key={station.number}>
                <th scope="row">
                  <b className="large">{station.number}</b> {station.name ?? ''}
                </th>
                <td>
                  {unknown ? (
                    <span className="fault">{say`not known`}</span>
                  ) : (
                    <>
                      {lengthWords(Math.round(station.weeklySeconds / 60) * 60)}{' '}
                      <span className="soft">{bySchool(station.number)}</span>
                    </>
                  )}
                </td>
                <td>
                  {station.cycleSeconds === undefined
                    ? say`limit not known`
                    : station.soakSeconds === undefined
                      ? lengthWords(station.cycleSeconds)
                      : say`${lengthWords(station.cycleSeconds)}, soak ${lengthWords(station.soakSeconds)}`}
                </td>
                <td>{more.join(', ')}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Scroll>
  );
}

/** Everything the visit found, on one page and as a document. */
export default function BriefView(props: StepProps) {
  if (props.isPending) return <Loading what={say`the rules, tables and weather for this site`} />;
  if (props.rulesState === 'failed') return <p className="fault">{RULES_FAILED}</p>;
  return <Read {...props} />;
}

function Read(props: StepProps) {
  const { plan, survey, site, rules, minutes, editor, today, timerId } = props;
  const { clock, order } = usePreferences();
  const speech = { on: today, clock, order };
  const [read, setRead] = useState<
    { readonly brief: Brief } | { readonly faults: readonly string[] } | null
  >(null);
  const record = { plan, survey };
  const brief = useWholeBrief(props);
  const sunrise = useSunrise(site, today);
  const wish = wishOf(brief);
  const unknown = unknownNeeds(minutes);
  const { device = {} } = survey;
  const visits = dueVisits(survey);
  const take = async (file: File) => {
    const text = await textOf(file);
    const outcome = text === null ? null : readBriefText(text);
    if (!outcome) setRead({ faults: [say`${file.name} is too large for a brief`] });
    else setRead(outcome.ok ? { brief: outcome.value } : { faults: outcome.faults.map(faultLine) });
  };
  const adopt = (taken: Brief) => {
    const refused = commitWords(editor, takeBriefChange(record, taken));
    setRead(refused === null ? null : { faults: [refused] });
  };
  return (
    <div className="survey-view stack page-column brief">
      <div className="row no-print">
        <Button
          size="large"
          type="primary"
          onClick={() => saveFile(`${site.name}.brief.json`, writeBrief(brief), 'application/json')}
        >{say`Export brief`}</Button>
        <Button size="large" onClick={() => print()}>{say`Print`}</Button>
        <FileButton
          label={say`Import brief …`}
          accept=".json,application/json"
          take={([file]) => file && void take(file)}
        />
      </div>
      {read && 'faults' in read && (
        <div role="alert" className="fault no-print">
          <p>{say`Nothing was changed:`}</p>
          <ul>
            {read.faults.slice(0, 10).map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
      )}
      {read && 'brief' in read && (
        <div role="alert" className="notice no-print">
          <p>{say`A brief with ${read.brief.stations.length} stations for “${read.brief.timer.name}”. Importing it sets the timer, its stations and their needs in one step that you can undo. Programs and mowing days stay.`}</p>
          <Button type="primary" onClick={() => adopt(read.brief)}>{say`Use this brief`}</Button>{' '}
          <Button onClick={() => setRead(null)}>{say`Cancel`}</Button>
        </div>
      )}
      {unknown.length > 0 && (
        <p className="caution">
          {unknown.length === 1
            ? say`The need of station ${unknown.join(', ')} is not known yet. The document has 0 there.`
            : say`The needs of stations ${unknown.join(', ')} are not known yet. The document has 0 there.`}{' '}
          <Link to={`/timers/${timerId}/minutes`}>{say`Minutes`}</Link>
        </p>
      )}
      <section className="stack near">
        <h2>{say`House`}</h2>
        <p>
          {[
            site.name,
            site.houseNumber && say`number ${site.houseNumber}`,
            site.supply && say`water from ${SUPPLY_WORDS[site.supply]}`,
            site.mowing.length > 0 &&
              (survey.dryBeforeMowing
                ? say`mowing on ${weekdaysWords(site.mowing)}, dry the day before as well`
                : survey.dryFrom === undefined
                  ? say`mowing on ${weekdaysWords(site.mowing)}`
                  : say`mowing on ${weekdaysWords(site.mowing)}, dry from ${startWords(survey.dryFrom, clock)} the day before`),
          ]
            .filter(Boolean)
            .join('; ')}
          .
        </p>
        {site.people.map(({ name, role, phone }) => (
          <p key={name + phone}>{[name, role, phone].filter(Boolean).join(', ')}</p>
        ))}
        {site.notes && <p>{site.notes}</p>}
      </section>
      <section className="stack near">
        <h2>{say`Rules`}</h2>
        <p>
          {survey.rules
            ? say`Set for this site: ${allowedWords(survey.rules, speech)}.`
            : rules
              ? `${rules.name}. ${rulesSentence(rules, site, speech)}`
              : say`None recorded.`}
        </p>
      </section>
      <section className="stack near">
        <h2>{say`Timer`}</h2>
        <p>
          {[
            say`${plan.timer.name}: ${plan.timer.stationCount} stations, ${plan.timer.programCount} programs, ${plan.timer.startsPerProgram} start times each`,
            ...(device.sensors ?? []).map(({ kind }) => SENSOR_WORDS[kind]),
            plan.settings.sensor === 'bypass' && say`rain sensor bypassed`,
            device.pump && say`pump: ${device.pump}`,
            survey.rain && say`when it rains: ${RAIN_WORDS[survey.rain]}`,
          ]
            .filter(Boolean)
            .join('; ')}
          .
        </p>
      </section>
      <section className="stack near">
        <h2>{say`Stations`}</h2>
        <Stations brief={brief} props={props} />
      </section>
      <section className="stack near">
        <h2>{say`Preferences`}</h2>
        <p>
          {say`Between ${startWords(wish.notBefore, clock)} and ${startWords(wish.finishBy, clock)}, no overlaps up to ${wish.headroomPercent} %.`}{' '}
          {wish.apart.map(([a, b]) => say`Keep ${a} apart from ${b}.`).join(' ')}
        </p>
        <WishEditor plan={plan} survey={survey} editor={editor} sunrise={sunrise} />
      </section>
      {visits.length > 0 && (
        <section className="stack near">
          <h2>{say`Next visits`}</h2>
          <ul>
            {visits.map((visit, i) => (
              <li key={i}>{visitSentence(visit, speech)}</li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
