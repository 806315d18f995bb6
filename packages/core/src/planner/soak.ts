import { type Brief, wishOf } from '../brief/brief.ts';
import { adjustedSeconds } from '../plan/program.ts';
import type { Draft } from './draftCycle.ts';
import { splitsByTimer, USUAL_SOAK_SECONDS } from './needs.ts';

/** The program's own cycle and soak, if one of its stations needs it. */
export function soakOf(brief: Brief, members: Draft['members']): Draft['soak'] {
  const { timer } = brief;
  if (timer.cycleSoak !== 'program' || wishOf(brief).starts === 'repeated') return null;
  const cycled = members.filter(({ need }) => splitsByTimer(brief, need));
  const isLong = cycled.some(
    ({ need, run }) => adjustedSeconds(run.seconds, 100, timer.seasonal) > (need.cycle ?? Infinity),
  );
  if (!isLong) return null;
  return {
    cycleSeconds: Math.min(...cycled.map(({ need }) => need.cycle ?? Infinity)),
    soakSeconds: Math.max(...cycled.map(({ need }) => need.soak ?? USUAL_SOAK_SECONDS)),
  };
}
