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

/** Of a visit. */
const HOLDS = [
  say`A card a station: it ran well, or which fault`,
  say`What was switched for the test, to be put back`,
  say`The settings as left, frozen, and whether the box has saved them`,
  say`What is left undone, and the end of the visit`,
];

/** Test, put back, freeze, say who comes back, close. */
export default function LeaveView(props: StepProps) {
  const { visit } = props.survey;
  if (!visit)
    return (
      <div className="survey-view stack page-column">
        <NoVisit editor={props.editor} now={props.now} holds={HOLDS} />
        <p>
          <Link to={`/timers/${props.timerId}/log`}>{say`The logbook`}</Link>{' '}
          {say`has those that are closed.`}
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
