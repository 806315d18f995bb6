import { useState } from 'react';
import { Button } from 'antd';
import { CheckCircleFilled, CheckOutlined, WarningFilled } from '@ant-design/icons';
import {
  judgeWiring,
  TEST_RESULTS,
  TEST_WORDS,
  WIRING_WORDS,
  wireMeaning,
  wireNext,
  WIRINGS,
  type StationTest,
  say,
} from '@water-clock/core';
import { Chips } from '../../shared/fields/Chips.tsx';
import { useAwake } from '../../shared/hand/useAwake.ts';
import { useSwipe } from '../../shared/hand/useSwipe.ts';
import { RunNow } from '../../shared/hand/RunNow.tsx';
import { useCountdown } from '../../shared/hand/useCountdown.ts';
import type { VisitPartProps } from '../shared/visitPart.ts';
import { WiringTable } from '../seen/WiringTable.tsx';
import { NoteField } from '../../shared/fields/NoteField.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';

const FAULTS = TEST_RESULTS.filter((result) => result !== 'waters');

/** What is noted for a station, in a few words. */
function testWords(test: StationTest | undefined): string {
  if (!test?.result) return say`not tested`;
  const wiring = test.wiring && test.wiring !== 'good' ? `, ${WIRING_WORDS[test.wiring]}` : '';
  return TEST_WORDS[test.result] + wiring;
}

/** A card for each station, two minutes each: ran well, or which fault; with the wiring test. */
export function TestList({ plan, visit, editor, timerId, survey }: VisitPartProps) {
  const tests = visit.tests ?? [];
  const [picked, setPicked] = useState<number | null>(null);
  const countdown = useCountdown(timerId);
  useAwake();
  const testOf = (number: number) => tests.find(({ station }) => station === number);
  const left = plan.stations.filter(({ number }) => !testOf(number)?.result);
  const current =
    plan.stations.find(({ number }) => number === picked) ?? left[0] ?? plan.stations[0];
  const put = (all: readonly StationTest[]) =>
    editor.commit({
      type: 'note-visit',
      fields: {
        tests: all.length > 0 ? [...all].sort((a, b) => a.station - b.station) : null,
      },
    });
  const set = (
    station: number,
    fields: { [K in keyof StationTest]?: StationTest[K] | undefined },
  ) => {
    const others = tests.filter((test) => test.station !== station);
    // Safe cast: only optional fields can be missing.
    const next = Object.fromEntries(
      Object.entries({ ...testOf(station), station, ...fields }).filter(
        ([, value]) => value !== undefined,
      ),
    ) as unknown as StationTest;
    put([...others, ...(Object.keys(next).length > 1 ? [next] : [])]);
  };
  /** Notes the result and goes to the next untested station. */
  const note = (station: number, result: StationTest['result'] | null) => {
    set(station, { result: result ?? undefined });
    setPicked(null);
  };
  const go = (by: 1 | -1) => {
    const at = plan.stations.findIndex(({ number }) => number === current?.number);
    setPicked(plan.stations[at + by]?.number ?? current?.number ?? null);
  };
  const swipe = useSwipe(
    () => go(1),
    () => go(-1),
  );
  if (!current) return null;
  const { number, name = '' } = current;
  const noted = testOf(number);
  const result = noted?.result;
  const judged = judgeWiring(tests).find(({ station }) => station === number);
  return (
    <section aria-label={say`Test`} className="leave-part part stack">
      <h2>{say`Test: two minutes per station`}</h2>
      <p className="soft" role="status">
        {left.length === 0
          ? say`All stations are tested. Never run a pump against closed valves.`
          : say`${plan.stations.length - left.length} of ${plan.stations.length} tested. Never run a pump against closed valves.`}
      </p>
      <div className="turn stack column" {...swipe}>
        <p className="test-station large heavy">
          <strong>{number}</strong> {name}
        </p>
        <RunNow
          number={number}
          countdown={countdown}
          seconds={survey.walkSeconds ?? 120}
          setSeconds={(walkSeconds) => editor.commit({ type: 'note', fields: { walkSeconds } })}
        />
        <Button
          type="primary"
          className="thumb"
          block
          icon={<CheckOutlined aria-hidden />}
          aria-pressed={result === 'waters'}
          onClick={() => note(number, 'waters')}
        >{say`Ran well`}</Button>
        <Chips
          label={say`Or choose a fault`}
          options={FAULTS.map((one) => [one, TEST_WORDS[one]] as const)}
          value={result === undefined || result === 'waters' ? null : result}
          pick={(next) => note(number, next)}
        />
        <Disclosure className="more" key={number} summary={say`Wiring and reading`}>
          {() => (
            <>
              <Chips
                label={say`Wiring`}
                options={WIRINGS.map((one) => [one, WIRING_WORDS[one]] as const)}
                value={noted?.wiring ?? null}
                pick={(wiring) => set(number, { wiring: wiring ?? undefined })}
              />
              <NoteField
                label={say`Reading of station ${number}`}
                placeholder={say`reading, such as 0.21 A or 38 Ω`}
                most={80}
                value={noted?.reading ?? ''}
                commit={(reading) => set(number, { reading: reading || undefined })}
              />
              {judged && (
                <p className={judged.state === 'good' ? 'soft' : 'fault'}>
                  {wireMeaning(judged)} <b>{wireNext(judged)}</b>
                </p>
              )}
            </>
          )}
        </Disclosure>
      </div>
      {left.length > 1 && (
        <Button
          onClick={() =>
            put([
              ...tests.filter(({ station }) => !left.some((one) => one.number === station)),
              ...left.map((one): StationTest => ({
                ...testOf(one.number),
                station: one.number,
                result: 'waters',
              })),
            ])
          }
        >
          {left.length === plan.stations.length ? say`All ran well` : say`All others ran well`}
        </Button>
      )}
      <WiringTable tests={tests} stations={plan.stations} />
      <ol className="list ruled column">
        {plan.stations.map((station) => {
          const test = testOf(station.number);
          const isGood = test?.result === 'waters' && (test.wiring ?? 'good') === 'good';
          return (
            <li key={station.number}>
              <Button
                type="text"
                aria-current={station.number === number}
                onClick={() => setPicked(station.number)}
              >
                <span className={isGood ? 'calm' : 'fault'} aria-hidden>
                  {test?.result && (isGood ? <CheckCircleFilled /> : <WarningFilled />)}
                </span>
                <b>{station.number}</b> {station.name ?? ''}
                <span className={test?.result && !isGood ? 'push fault' : 'push soft'}>
                  {testWords(test)}
                </span>
              </Button>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
