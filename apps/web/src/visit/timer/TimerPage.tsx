import { useEffect, useMemo } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { say } from '@water-clock/core';
import { HouseStyle } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useLibrary } from '../../data/api/library.ts';
import { useSession } from '../../data/api/people.ts';
import { openProposalOf, proposedOf, useProposals } from '../../data/api/proposals.ts';
import { timerKeys, useTimer } from '../../data/api/timers.ts';
import { fetchStep } from './StepView.tsx';
import { TimerVisit } from './TimerVisit.tsx';

/** A timer as saved, or with an apprentice's suggestion. */
export default function TimerPage() {
  const { timerId = '', view = '' } = useParams();
  const timer = useTimer(timerId);
  const client = useQueryClient();
  // Loads what the step needs in parallel with the timer.
  useEffect(() => fetchStep(view), [view]);
  useLibrary('rules');
  useEffect(
    () => () => client.removeQueries({ queryKey: timerKeys.one(timerId) }),
    [client, timerId],
  );
  const person = useSession().data?.person;
  const proposer = person?.role === 'apprentice' ? person.id : null;
  const proposals = useProposals(timerId);
  const opened = useMemo(() => {
    if (proposer === null || !timer.data || !proposals.data) return timer.data;
    const own = openProposalOf(proposer, proposals.data);
    return { ...timer.data, ...proposedOf(timer.data, own), history: [] };
  }, [timer.data, proposals.data, proposer]);
  const missing = timer.isError ? timer : proposer !== null && proposals.isError ? proposals : null;
  if (missing)
    return (
      <Failed
        what={say`The timer`}
        error={missing.error ?? new Error(say`there was no answer`)}
        retry={() => void missing.refetch()}
      />
    );
  if (!opened || (proposer !== null && !proposals.data)) return <Loading what={say`the timer`} />;
  const { site } = opened;
  return (
    <HouseStyle clock={site.clockStyle} units={site.units}>
      <TimerVisit key={timerId} view={opened} proposer={proposer} />
    </HouseStyle>
  );
}
