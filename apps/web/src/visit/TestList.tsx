import { Button } from 'antd';
import {
  TEST_RESULTS,
  TEST_WORDS,
  WIRING_WORDS,
  WIRINGS,
  type StationTest,
} from '@water-clock/core';
import { Chips } from '../fields/Chips.tsx';
import type { VisitPartProps } from './visitPart.ts';
import { NoteField } from '../fields/NoteField.tsx';
import { Disclosure } from '../fields/Disclosure.tsx';

const chips = <T extends string>(all: readonly T[], words: Readonly<Record<T, string>>) =>
  all.map((one) => [one, words[one]] as const);

/** Two minutes a station, and what the wiring test said. */
export function TestList({ plan, visit, editor }: VisitPartProps) {
  const tests = visit.tests ?? [];
  const set = (station: number, fields: Partial<StationTest>) => {
    const others = tests.filter((test) => test.station !== station);
    const before = tests.find((test) => test.station === station) ?? { station };
    const next = Object.fromEntries(
      Object.entries({ ...before, ...fields }).filter(([, value]) => value !== undefined),
    ) as unknown as StationTest;
    const all = [...others, ...(Object.keys(next).length > 1 ? [next] : [])];
    editor.commit({
      type: 'note-visit',
      fields: { tests: all.length > 0 ? all.sort((a, b) => a.station - b.station) : null },
    });
  };
  const left = plan.stations.filter(
    ({ number }) => !tests.some((test) => test.station === number && test.result),
  );
  return (
    <section aria-label="Test" className="leave-part">
      <h2>Test: two minutes a station</h2>
      <p className="soft">
        {left.length === 0
          ? 'All stations are tested.'
          : `${plan.stations.length - left.length} of ${plan.stations.length} tested.`}{' '}
        A pump must never run with every valve closed.
      </p>
      {left.length > 1 && (
        <Button
          onClick={() => {
            const rest = left.map(({ number }): StationTest => ({
              ...tests.find((test) => test.station === number),
              station: number,
              result: 'waters',
            }));
            const others = tests.filter(
              ({ station }) => !rest.some((test) => test.station === station),
            );
            editor.commit({
              type: 'note-visit',
              fields: { tests: [...others, ...rest].sort((a, b) => a.station - b.station) },
            });
          }}
        >
          {left.length === plan.stations.length ? 'All of them water' : 'All others water'}
        </Button>
      )}
      {plan.stations.map(({ number, name }) => {
        const noted = tests.find((test) => test.station === number);
        return (
          <Disclosure
            key={number}
            className="test"
            summary={
              <>
                <strong>{number}</strong> {name ?? ''}{' '}
                <span className={noted?.result && noted.result !== 'waters' ? 'fault' : 'soft'}>
                  {noted?.result ? TEST_WORDS[noted.result] : 'not tested'}
                  {noted?.wiring && noted.wiring !== 'good'
                    ? `, ${WIRING_WORDS[noted.wiring]}`
                    : ''}
                </span>
              </>
            }
          >
            {() => (
              <>
                <Chips
                  label="It"
                  options={chips(TEST_RESULTS, TEST_WORDS)}
                  value={noted?.result ?? null}
                  pick={(result) =>
                    set(number, { result: result ?? undefined } as Partial<StationTest>)
                  }
                />
                <Chips
                  label="Wiring"
                  options={chips(WIRINGS, WIRING_WORDS)}
                  value={noted?.wiring ?? null}
                  pick={(wiring) =>
                    set(number, { wiring: wiring ?? undefined } as Partial<StationTest>)
                  }
                />
                <NoteField
                  label={`Reading of station ${number}`}
                  placeholder="reading, such as 0.21 A"
                  most={80}
                  value={noted?.reading ?? ''}
                  commit={(reading) =>
                    set(number, { reading: reading || undefined } as Partial<StationTest>)
                  }
                />
              </>
            )}
          </Disclosure>
        );
      })}
    </section>
  );
}
