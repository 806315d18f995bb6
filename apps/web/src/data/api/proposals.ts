/** Apprentices' suggestions for a timer. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { applyRecordChange, type RecordChange, type TimerRecord } from '@water-clock/core';
import { newId, request } from './request.ts';
import { changeBody, loadTimer, type Saved, type Write } from './timers.ts';

export interface Proposal {
  readonly id: string;
  readonly personId: string;
  readonly by: string;
  readonly state: 'draft' | 'sent' | 'withdrawn' | 'accepted' | 'refused';
  readonly version: number;
  readonly changes: readonly RecordChange[];
  readonly note: string;
  readonly answer: string;
  readonly answeredBy: string | null;
  /** ISO instant of the last step. */
  readonly movedAt: string;
}

const path = (timerId: string) => `/api/timers/${encodeURIComponent(timerId)}/proposals`;
export const proposalsKey = (timerId: string) => ['timers', timerId, 'proposals'] as const;
const loadProposals = (timerId: string) => request<Proposal[]>('GET', path(timerId));

export const useProposals = (timerId: string) =>
  useQuery({
    queryKey: proposalsKey(timerId),
    queryFn: () => loadProposals(timerId),
  });

/** The record with the suggestion applied; changes that no longer fit are left out. */
export function proposedRecord(record: TimerRecord, changes: readonly RecordChange[]): TimerRecord {
  let made: TimerRecord = { plan: record.plan, survey: record.survey };
  for (const change of changes) {
    const applied = applyRecordChange(made, change);
    if (applied.ok) ({ record: made } = applied.value);
  }
  return made;
}

/** One's own suggestion that has no answer yet. */
export const openProposalOf = (
  personId: string,
  proposals: readonly Proposal[],
): Proposal | undefined =>
  proposals.find((one) => one.personId === personId && ['draft', 'sent'].includes(one.state));

/** A timer as one suggests it; version 1 if there is no suggestion. */
export const proposedOf = (record: TimerRecord, own: Proposal | undefined): Saved => ({
  version: own?.version ?? 1,
  ...proposedRecord(record, own?.changes ?? []),
});

export async function loadProposed(timerId: string, personId: string): Promise<Saved> {
  const [timer, proposals] = await Promise.all([loadTimer(timerId), loadProposals(timerId)]);
  return proposedOf(timer, openProposalOf(personId, proposals));
}

export const sendProposed = (timerId: string, write: Write) =>
  request<{ version: number }>('POST', `${path(timerId)}/changes`, changeBody(write));

function useStep<In>(timerId: string, step: (given: In) => Promise<Proposal>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: step,
    onSettled: () => client.invalidateQueries({ queryKey: proposalsKey(timerId) }),
  });
}

export const useMoveProposal = (timerId: string) =>
  useStep(
    timerId,
    ({
      proposal: { id, version },
      ...body
    }: {
      readonly proposal: Proposal;
      readonly state: 'draft' | 'sent' | 'withdrawn';
      readonly note: string;
    }) =>
      request<Proposal>('POST', `/api/proposals/${id}/moves`, {
        ...body,
        id: newId(),
        baseVersion: version,
      }),
  );

export const useAnswerProposal = (timerId: string) =>
  useStep(
    timerId,
    ({
      proposal,
      timerVersion,
      ...body
    }: {
      readonly proposal: Proposal;
      /** The version that was looked at. */
      readonly timerVersion: number;
      readonly isAccepted: boolean;
      readonly answer: string;
    }) =>
      request<Proposal>('POST', `/api/proposals/${proposal.id}/answers`, {
        ...body,
        id: newId(),
        baseVersion: timerVersion,
      }),
  );
