/** Output of `water-clock plan` (planning.md section 3). */
import { assertDefined } from '../document/assertDefined.ts';
import type { Brief } from '../brief/brief.ts';
import { pathText } from '../document/fault.ts';
import { briefChanges } from './briefChanges.ts';
import { proofSentence, reasonSentence, simplerSentence, sourceWords } from './plannerWords.ts';
import { conflictSentences } from './demandWords.ts';
import type { Worked } from './workOut.ts';
import { say } from '../language/say.ts';

export function planReport(
  brief: Brief,
  { plan, cost, proof, reasons, simpler, conflicts, isSure, short, hours, coming }: Worked,
) {
  const report = {
    proof: cost
      ? {
          optimal: proof.optimal,
          bound: proof.bound,
          /** Part by part, how far the plan is above the proven bound. */
          gap: cost.map(
            (part, i) =>
              Math.round(
                Math.max(0, part - assertDefined(proof.bound[i], 'proof.bound[i]')) * 1000,
              ) / 1000,
          ),
          message: proofSentence(proof, cost),
        }
      : {
          optimal: isSure,
          message: isSure ? say`No plan can meet all of this.` : say`No plan was found.`,
        },
    reasons: reasons.map((reason) => ({
      about: reason.kind,
      ...(reason.program === undefined ? {} : { program: reason.program }),
      ...(reason.station === undefined ? {} : { station: reason.station }),
      message: reasonSentence(reason, brief, '24'),
      from: { path: pathText(reason.path), words: sourceWords(reason.path, brief) },
    })),
    simpler: cost
      ? simpler.map((simpler) => ({ ...simpler, message: simplerSentence(simpler, cost) }))
      : [],
    short,
    ...(hours ? { hours } : {}),
    coming,
    ...(plan
      ? {}
      : {
          conflicts: conflicts.map((conflict) => {
            const { demand, change } = conflictSentences(conflict, brief, '24');
            const apply = conflict.change ? briefChanges(brief, conflict.change.brief) : [];
            return { path: pathText(conflict.demand.path), demand, change, apply };
          }),
        }),
  };
  return { plan, cost, report };
}
