import { useState } from 'react';
import { Button, Input } from 'antd';
import {
  listed,
  MOST_DECODER_READINGS,
  readSerialList,
  surveyOf,
  type DecoderReading,
  type SurveyStationFields,
  say,
} from '@water-clock/core';
import { Link } from 'react-router';
import { NoteField } from '../../shared/fields/NoteField.tsx';
import { DecoderSummary } from './DecoderSummary.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { momentText } from '../shared/panel.ts';

type Fields = { readonly [K in keyof SurveyStationFields]?: SurveyStationFields[K] | null };

/** The decoders of a two-wire timer: serials in station order, and what the timer showed when each was tried. */
export default function Decoders({ plan, survey, editor, now }: StepProps) {
  const [typed, setTyped] = useState('');
  const numbers = plan.stations.map(({ number }) => number).sort((a, b) => a - b);
  const assigned = new Map(
    numbers.flatMap((number) => {
      const serial = surveyOf(survey, number).decoder?.trim();
      return serial ? [[number, serial] as const] : [];
    }),
  );
  const note = (all: readonly (readonly [station: number, fields: Fields])[]) =>
    editor.commit({
      type: 'together',
      changes: all.map(([station, fields]) => ({ type: 'note-station', station, fields }) as const),
    });
  const read = (station: number, reading: Omit<DecoderReading, 'at'>) =>
    note([
      [
        station,
        {
          decoderReadings: [
            ...(surveyOf(survey, station).decoderReadings ?? []),
            { at: momentText(now), ...reading },
          ].slice(-MOST_DECODER_READINGS),
        },
      ],
    ]);
  const list = readSerialList(typed, numbers, assigned);
  return (
    <section className="stack" aria-label={say`Two-wire`}>
      <p className="soft">
        {say`Search for decoders and try them with the timer. Enter here what it shows.`}{' '}
        <Link to={`/bench?kind=${encodeURIComponent(plan.timer.name)}`}>
          {say`Practise on the bench`}
        </Link>
      </p>
      <div className="row at-foot">
        <label className="labelled grow">
          {say`Serial numbers in station order`}
          <Input
            aria-label={say`Serial numbers in station order`}
            value={typed}
            placeholder="004711, 013377, …"
            status={list.ok ? '' : 'error'}
            onChange={({ target }) => setTyped(target.value)}
          />
          {!list.ok && <span className="fault">{list.why}</span>}
          {list.ok && list.replaced.length > 0 && (
            <span className="fault">{say`Replaces the decoder at: ${listed(list.replaced)}.`}</span>
          )}
        </label>
        <Button
          disabled={!list.ok || list.assigned.size === 0}
          onClick={() => {
            if (!list.ok) return;
            note(
              [...list.assigned].map(([station, decoder]) => [
                station,
                // Readings belong to the decoder they were taken from.
                list.replaced.includes(station) ? { decoder, decoderReadings: null } : { decoder },
              ]),
            );
            setTyped('');
          }}
        >{say`Assign list`}</Button>
      </div>
      <ul className="list ruled" aria-label={say`Decoders by station`}>
        {[...assigned].map(([number, serial]) => {
          const { decoderMark = '', decoderReadings = [] } = surveyOf(survey, number);
          const last = decoderReadings.at(-1);
          const before = decoderReadings.slice(0, -1);
          return (
            <li key={number} className="row">
              <DecoderSummary
                number={number}
                name={plan.stations.find((one) => one.number === number)?.name ?? ''}
                serial={serial}
                last={last}
              />
              <span className="row near in-line at-foot">
                <NumberField
                  label={say`Current of station ${number}`}
                  unit="mA"
                  most={5000}
                  value={last?.milliamps ?? null}
                  empty={say`not read`}
                  commit={(milliamps) => {
                    if (milliamps !== null) read(number, { milliamps });
                    // An emptied field takes the last reading back.
                    else note([[number, { decoderReadings: before.length > 0 ? before : null }]]);
                    return null;
                  }}
                />
                <Button
                  aria-label={say`No answer from station ${number}`}
                  onClick={() => read(number, {})}
                >{say`No answer`}</Button>
                <NoteField
                  label={say`Mark on the decoder of station ${number}`}
                  placeholder={say`mark, such as blue tape`}
                  most={200}
                  value={decoderMark}
                  commit={(mark) => note([[number, { decoderMark: mark || null }]])}
                />
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
