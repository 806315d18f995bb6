/** Cost of the simulated timer: a day and a year of a garden, untouched and with key presses. `npm run bench:device -w packages/core`. */
import { readFileSync } from 'node:fs';
import { SimulatedTimer, readPlanText, SECONDS_PER_DAY, simulate } from '@water-clock/core';

const DAY = 20_970;
const TIMES = 15;
const examples = new URL('../../../docs/spec/examples/', import.meta.url);
const median = (numbers) => [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)];
const timed = (work) => {
  work();
  return median(
    Array.from({ length: TIMES }, () => {
      const began = performance.now();
      work();
      return performance.now() - began;
    }),
  );
};

for (const name of ['pieces-and-soaks', 'stretched-into-the-next', 'side-by-side', 'events-rain']) {
  const { value: plan } = readPlanText(
    readFileSync(new URL(`${name}.plan.json`, examples), 'utf8'),
  );
  const live = (days) => {
    const device = SimulatedTimer.idle(plan, DAY * SECONDS_PER_DAY);
    device.advance((DAY + days) * SECONDS_PER_DAY);
  };
  const pressed = () => {
    const device = SimulatedTimer.idle(plan, DAY * SECONDS_PER_DAY);
    for (let hour = 0; hour < 365 * 24; hour++) {
      device.press({ do: hour % 9 === 0 ? 'wet' : 'dry' });
      device.advance((DAY * 24 + hour + 1) * 3600);
    }
  };
  const [day, year] = [timed(() => live(1)), timed(() => live(365))];
  const alone = timed(() => simulate(plan, DAY, 365));
  process.stdout.write(
    `${name.padEnd(28)} day ${day.toFixed(2)} ms, year ${year.toFixed(0)} ms (${(year / alone).toFixed(1)} × the simulation), a press an hour ${timed(pressed).toFixed(0)} ms\n`,
  );
}
