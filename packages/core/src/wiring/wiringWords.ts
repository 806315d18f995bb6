/** Messages of the wiring test. */
import type { WireJudgement } from './judgeWiring.ts';
import { say } from '../language/say.ts';

/** What it means. */
export function wireMeaning({ state, isCommon, by }: WireJudgement): string {
  switch (state) {
    case 'good':
      return say`Wire and coil are good.`;
    case 'open':
      if (isCommon)
        return say`Nearly all read open. The common wire is broken or off its terminal.`;
      return by === 'resistance'
        ? say`Open circuit: broken wire, bad splice or burnt-out coil.`
        : say`No current: bad output, wire or coil.`;
    case 'short':
      return by === 'resistance'
        ? say`Short circuit: burnt coil or two wires touching.`
        : say`Too much current: burnt coil or two wires touching.`;
    case 'low':
      return say`Less current than its neighbours: bad splice or a long, thin wire.`;
    case 'high':
      return say`More current than its neighbours: two valves on one station, or a failing coil.`;
  }
}

/** What to do next, with its caution; null: nothing. */
export function wireNext({ state, isCommon, by, next }: WireJudgement): string | null {
  if (next === null) return null;
  if (isCommon) return say`Next: check the common at the terminal, then at the first valve box.`;
  if (next === 'valve' && state === 'good')
    return say`Next: open the valve manually. If it waters, the fault is inside the valve. If not, the water is shut off.`;
  if (next === 'valve' && state === 'high')
    return say`Next: at the valve, count the coils on this wire and measure each by itself.`;
  if (next === 'valve')
    return say`Next: measure the coil by itself at the valve. If it reads 20 to 60 Ω, the wire is bad.`;
  return state === 'low'
    ? say`Next: measure its resistance at the terminal and check the splices.`
    : by === 'current'
      ? say`Next: take its wire off the terminal and measure the resistance to the common. If it reads 20 to 60 Ω, the output is bad.`
      : say`Next: take its wire off the terminal and measure the resistance to the common.`;
}
