import { Card, Descriptions } from 'antd';
import {
  lengthWords,
  listed,
  percentSteps,
  plural,
  rainDelayWords,
  type Timer,
  type TimerKind,
  say,
  sayText,
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

function percentWords(timer: Timer): string {
  const { scope, byMonth } = timer.seasonal;
  if (scope === 'none') return say`none`;
  const steps = percentSteps(timer);
  const range = say`${steps[0]} to ${steps.at(-1)} %`;
  return `${range}, ${byMonth ? say`one for each month` : scope === 'timer' ? say`one for the whole timer` : say`one for each program`}`;
}

/** What this timer can do, read-only; it is edited below. */
export function KindCard({
  timer,
  kind,
}: {
  readonly timer: Timer;
  readonly kind: TimerKind | undefined;
}) {
  const facts: readonly (readonly [string, string])[] = [
    [
      say`Capacity`,
      listed([
        plural(timer.stationCount, '# station', '# stations'),
        plural(timer.programCount, '# program', '# programs'),
        plural(timer.startsPerProgram, '# start time per program', '# start times per program'),
      ]),
    ],
    [say`Days`, listed(timer.dayRules.map((rule) => RULE_WORDS[rule]))],
    [
      say`Run times`,
      say`up to ${lengthWords(timer.longestRunSeconds)}, in steps of ${lengthWords(timer.runStepSeconds)}`,
    ],
    [say`Cycle and soak`, SOAK_WORDS[timer.cycleSoak]],
    [say`Seasonal percent`, percentWords(timer)],
    [say`When programs overlap`, OVERLAP_WORDS[timer.onOverlap]],
    [say`No-water hours`, WINDOW_WORDS[timer.inWindow]],
    [say`Manual run during a cycle`, BY_HAND_WORDS[timer.manualDuring ?? 'replace']],
    [say`When the sensor is wet`, RAIN_SENSOR_WORDS[timer.onRain ?? 'dry-run']],
    [
      say`After a power cut`,
      say`its clock ${OUTAGE_WORDS[timer.powerLoss?.clock ?? 'kept']}, its settings ${MEMORY_WORDS[timer.powerLoss?.settings ?? 'kept']}`,
    ],
    [say`Stations at once`, String(timer.stationsAtOnce)],
    ...(kind?.rainDelay ? ([[say`Rain delay`, rainDelayWords(kind.rainDelay)]] as const) : []),
  ];
  return (
    <Card size="small" className="kind-card" title={sayText(timer.name)}>
      <Descriptions
        size="small"
        column={{ xs: 1, md: 2 }}
        items={facts.map(([label, children]) => ({ key: label, label, children }))}
      />
    </Card>
  );
}
