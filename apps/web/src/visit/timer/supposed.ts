/** The night on the strip after what-if events. Loaded when needed, because it takes the whole simulated timer. */
import {
  atPercent,
  attempt,
  Effort,
  pressedNights,
  type Night,
  type Plan,
} from '@water-clock/core';
import { pressesOf, type WhatIf } from '../../data/workers/timerQuestion.ts';

/** Engine steps that do not block the page. */
const STEPS_HERE = 2_000_000;

/** Null: too much happens in these days to calculate it on the page. */
export function supposedNight(night: Night, plan: Plan, whatIf: WhatIf): Night | null {
  const seen = whatIf.percent === null ? plan : atPercent(plan, whatIf.percent);
  const box = { plan: seen, factory: whatIf.factory, ahead: whatIf.ahead };
  const made = attempt(() =>
    pressedNights([night], box, pressesOf(whatIf), new Effort(STEPS_HERE)),
  );
  return (made.ok && made.value[0]) || null;
}
