/** What the wiring test says, in words. */
import type { WireJudgement } from './judgeWiring.ts';
import { say } from '../language/say.ts';

/** What it means. */
export function wireMeaning({ state, isCommon, by }: WireJudgement): string {
  switch (state) {
    case 'good':
      return say`Wire and coil are good.`;
    case 'open':
      if (isCommon)
        return say`Nearly all are open: the common wire is broken, or off its terminal.`;
      return by === 'resistance'
        ? say`Open behind the terminal: the wire is broken, a splice is bad, or the coil is burnt out.`
        : say`No current: the output, the wire or the coil.`;
    case 'short':
      return by === 'resistance'
        ? say`Short behind the terminal: the coil has burnt through, or two wires touch.`
        : say`Too much current: the coil has burnt through, or two wires touch.`;
    case 'low':
      return say`Less current than its neighbours: a bad splice, or a long thin wire.`;
    case 'high':
      return say`More current than its neighbours: two valves on one station, or a coil that is about to go.`;
  }
}

/** What to do next, with its caution; null: nothing. */
export function wireNext({ state, isCommon, by, next }: WireJudgement): string | null {
  if (next === null) return null;
  if (isCommon) return say`Next: look at the common at the terminal, then at the first valve box.`;
  if (next === 'valve' && state === 'good')
    return say`Next: open the valve by hand. If it waters, the valve’s inside; if not, the water is shut off.`;
  if (next === 'valve' && state === 'high')
    return say`Next: at the valve: count the coils on this wire, and measure each by itself.`;
  if (next === 'valve')
    return say`Next: measure the coil at the valve by itself. 20 to 60 Ω is good: then it is the wire.`;
  return state === 'low'
    ? say`Next: measure its resistance at the terminal, and look at the splices.`
    : say`Next: take its wire off the terminal and measure the resistance to the common${by === 'current' ? say`; if it is 20 to 60 Ω, it is the output` : ''}.`;
}
