/** The night on the strip as the timer would run it if something were done to it. Comes when it is asked for: it needs the whole live device. */
import {
  atPercent,
  attempt,
  Effort,
  pressedNights,
  type Night,
  type Plan,
} from '@water-clock/core';
import { pressesOf, type WhatIf } from '../../data/workers/timerQuestion.ts';

/** Small steps of the engine that do not hold up the page. */
const STEPS_HERE = 2_000_000;

/** Null: so much happens in these days that it cannot be worked out on the page. */
export function supposedNight(night: Night, plan: Plan, whatIf: WhatIf): Night | null {
  const seen = whatIf.percent === null ? plan : atPercent(plan, whatIf.percent);
  const box = { plan: seen, factory: whatIf.factory, ahead: whatIf.ahead };
  const made = attempt(() =>
    pressedNights([night], box, pressesOf(whatIf), new Effort(STEPS_HERE)),
  );
  return (made.ok && made.value[0]) || null;
}
