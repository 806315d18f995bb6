/**
 * The shipped tasks, from setting a clock to a garden of fourteen stations, and faults to find. Each is a document, read like a company's
 * own.
 */
import { assert } from '../document/fault.ts';
import { readTask, type Task } from './task.ts';
import set01Clock from './tasks/set-01-clock.task.json' with { type: 'json' };
import set02Start from './tasks/set-02-start.task.json' with { type: 'json' };
import set03Runs from './tasks/set-03-runs.task.json' with { type: 'json' };
import find01HalfADay from './tasks/find-01-half-a-day.task.json' with { type: 'json' };
import find02LeftOver from './tasks/find-02-left-over.task.json' with { type: 'json' };
import find05Dead from './tasks/find-05-dead.task.json' with { type: 'json' };
import find06RainDelay from './tasks/find-06-rain-delay.task.json' with { type: 'json' };
import set04Days from './tasks/set-04-days.task.json' with { type: 'json' };
import set05Card from './tasks/set-05-card.task.json' with { type: 'json' };
import set08Percent from './tasks/set-08-percent.task.json' with { type: 'json' };
import set09RainDelay from './tasks/set-09-rain-delay.task.json' with { type: 'json' };
import find03HalfSet from './tasks/find-03-half-set.task.json' with { type: 'json' };
import find04Percent from './tasks/find-04-percent.task.json' with { type: 'json' };
import set06Interval from './tasks/set-06-interval.task.json' with { type: 'json' };
import set07OddEven from './tasks/set-07-odd-even.task.json' with { type: 'json' };
import set11Soak from './tasks/set-11-soak.task.json' with { type: 'json' };
import set12Overlap from './tasks/set-12-overlap.task.json' with { type: 'json' };
import find07Interval from './tasks/find-07-interval.task.json' with { type: 'json' };
import find08At130 from './tasks/find-08-at-130.task.json' with { type: 'json' };
import set10Keypad from './tasks/set-10-keypad.task.json' with { type: 'json' };
import set13FirstDate from './tasks/set-13-first-date.task.json' with { type: 'json' };
import set14FourteenStations from './tasks/set-14-fourteen-stations.task.json' with { type: 'json' };

export interface ShippedTask {
  readonly id: string;
  readonly task: Task;
}

const DOCUMENTS: readonly (readonly [id: string, document: unknown])[] = [
  ['set-01-clock', set01Clock],
  ['set-02-start', set02Start],
  ['set-03-runs', set03Runs],
  ['find-01-half-a-day', find01HalfADay],
  ['find-02-left-over', find02LeftOver],
  ['find-05-dead', find05Dead],
  ['find-06-rain-delay', find06RainDelay],
  ['set-04-days', set04Days],
  ['set-05-card', set05Card],
  ['set-08-percent', set08Percent],
  ['set-09-rain-delay', set09RainDelay],
  ['find-03-half-set', find03HalfSet],
  ['find-04-percent', find04Percent],
  ['set-06-interval', set06Interval],
  ['set-07-odd-even', set07OddEven],
  ['set-11-soak', set11Soak],
  ['set-12-overlap', set12Overlap],
  ['find-07-interval', find07Interval],
  ['find-08-at-130', find08At130],
  ['set-10-keypad', set10Keypad],
  ['set-13-first-date', set13FirstDate],
  ['set-14-fourteen-stations', set14FourteenStations],
];

/** Easiest first. */
export const SHIPPED_TASKS: readonly ShippedTask[] = DOCUMENTS.map(([id, document]) => {
  const read = readTask(document);
  assert(read.ok, `the shipped task ${id} is sound`);
  return { id, task: read.value };
});
