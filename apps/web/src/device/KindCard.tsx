import { Card, Descriptions } from 'antd';
import {
  lengthWords,
  listed,
  percentSteps,
  rainDelayWords,
  type Timer,
  type TimerKind,
} from '@water-clock/core';
import {
  BY_HAND_WORDS,
  MEMORY_WORDS,
  OUTAGE_WORDS,
  OVERLAP_WORDS,
  RAIN_SENSOR_WORDS,
  RULE_WORDS,
  SOAK_WORDS,
  WINDOW_WORDS,
} from './abilityWords.ts';

const count = (number: number, one: string) => `${number} ${one}${number === 1 ? '' : 's'}`;

function percentWords(timer: Timer): string {
  const { scope, byMonth } = timer.seasonal;
  if (scope === 'none') return 'none';
  const steps = percentSteps(timer);
  const range = `${steps[0]} to ${steps.at(-1)} %`;
  return `${range}, ${byMonth ? 'one for each month' : scope === 'timer' ? 'one for the whole timer' : 'one for each program'}`;
}

/** What this timer can do, to be read; it is changed below. */
export function KindCard({
  timer,
  kind,
}: {
  readonly timer: Timer;
  readonly kind: TimerKind | undefined;
}) {
  const facts: readonly (readonly [string, string])[] = [
    [
      'Room for',
      `${count(timer.stationCount, 'station')}, ${count(timer.programCount, 'program')}, ${count(timer.startsPerProgram, 'start')} each`,
    ],
    ['Days', listed(timer.dayRules.map((rule) => RULE_WORDS[rule]))],
    [
      'Run times',
      `up to ${lengthWords(timer.longestRunSeconds)}, in steps of ${lengthWords(timer.runStepSeconds)}`,
    ],
    ['Cycle and soak', SOAK_WORDS[timer.cycleSoak]],
    ['Seasonal percent', percentWords(timer)],
    ['When programs overlap', OVERLAP_WORDS[timer.onOverlap]],
    ['Hours without water', WINDOW_WORDS[timer.inWindow]],
    ['By hand during a cycle', BY_HAND_WORDS[timer.manualDuring ?? 'replace']],
    ['When the sensor is wet', RAIN_SENSOR_WORDS[timer.onRain ?? 'dry-run']],
    [
      'After a power cut',
      `its clock ${OUTAGE_WORDS[timer.powerLoss?.clock ?? 'kept']}, its settings ${MEMORY_WORDS[timer.powerLoss?.settings ?? 'kept']}`,
    ],
    ['Stations at once', String(timer.stationsAtOnce)],
    ...(kind?.rainDelay ? ([['Rain delay', rainDelayWords(kind.rainDelay)]] as const) : []),
  ];
  return (
    <Card size="small" className="kind-card" title={timer.name}>
      <Descriptions
        size="small"
        column={{ xs: 1, md: 2 }}
        items={facts.map(([label, children]) => ({ key: label, label, children }))}
      />
    </Card>
  );
}
