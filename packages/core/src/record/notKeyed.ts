/** Card lines left unkeyed in a visit. Apart from closing.ts, so that a timer's first screen loads no card. */
import { attempt } from '../engine/effort.ts';
import { factoryPlan, isTicked, keyInLines } from '../panel/keyIn.ts';
import type { PanelNow } from '../panel/line.ts';
import type { TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import type { Survey } from '../survey/survey.ts';
import type { Undone, Visit } from '../visit/visit.ts';

/** The state that a key-in scope starts from; null: the timer's settings are not known. */
export function keyInBase(
  plan: Plan,
  { asFound, keyIn }: Visit,
  kind: Pick<TimerKind, 'preset'> | null,
): Plan | null {
  const scope = keyIn?.scope ?? (asFound ? 'changes' : 'everything');
  if (scope === 'factory') return factoryPlan(plan, kind);
  return scope === 'changes' ? (asFound?.plan ?? null) : null;
}

/** Card lines not keyed in, without the clock; none if no one noted the settings as found or keyed anything in. */
export function notKeyed(
  plan: Plan,
  { visit }: Survey,
  kind: Pick<TimerKind, 'preset'> | null,
  now: PanelNow,
): Undone[] {
  if (!visit?.asFound && !visit?.keyIn) return [];
  const ticked = new Set(visit.keyIn?.ticked);
  const worked = attempt(() =>
    keyInLines(plan, keyInBase(plan, visit, kind), now, true, visit.asFound?.notLooked),
  );
  const lines = worked.ok
    ? worked.value.filter(
        (line) =>
          line.setting !== 'clock' && line.address.of !== 'total' && !isTicked(line, ticked),
      ).length
    : 0;
  return lines > 0 ? [{ what: 'not-keyed', lines }] : [];
}
