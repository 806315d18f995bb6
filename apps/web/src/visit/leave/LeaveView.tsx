import { Link } from 'react-router';
import type { StepProps } from '../steps/stepProps.ts';
import { VisitFindings } from '../shared/VisitFindings.tsx';
import { NoVisit } from '../shared/NoVisit.tsx';
import { AsLeft } from './AsLeft.tsx';
import { CloseVisit } from './CloseVisit.tsx';
import { NextVisits } from '../log/NextVisits.tsx';
import { PutBack } from './PutBack.tsx';
import { TestList } from './TestList.tsx';
import { say } from '@water-clock/core';

/** In a visit. */
const HOLDS = [
  say`One card per station: ran well, or the fault`,
  say`What was switched for the test and must be put back`,
  say`Final settings, and whether they are saved in the timer`,
  say`What is not done, and the end of the visit`,
];

/** Test, put back, save, next visit, close. */
export default function LeaveView(props: StepProps) {
  const { visit } = props.survey;
  if (!visit)
    return (
      <div className="survey-view stack page-column">
        <NoVisit editor={props.editor} now={props.now} holds={HOLDS} />
        <p>
          <Link to={`/timers/${props.timerId}/log`}>{say`Closed visits are in the logbook`}</Link>
        </p>
      </div>
    );
  const part = { ...props, visit };
  return (
    <div className="survey-view stack page-column">
      <VisitFindings {...props} />
      <TestList {...part} />
      <PutBack {...part} />
      <AsLeft {...part} />
      <NextVisits {...part} />
      <CloseVisit {...part} />
    </div>
  );
}
