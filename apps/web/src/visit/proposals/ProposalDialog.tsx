import { useState } from 'react';
import { Alert, Button, Input, Modal } from 'antd';
import { recordDifferences, type TimerRecord, say } from '@water-clock/core';
import { proposedRecord, useAnswerProposal, type Proposal } from '../../data/api/proposals.ts';
import { failureWords } from '../../data/api/request.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Differences } from '../log/Differences.tsx';

interface Props {
  readonly timerId: string;
  readonly proposal: Proposal;
  readonly record: TimerRecord;
  /** Version of the record. */
  readonly version: number;
  /** Adopts what was accepted. */
  readonly done: () => void;
  readonly close: () => void;
}

/** A suggestion as a comparison with the current settings, to accept or decline. */
export default function ProposalDialog(props: Props) {
  const { timerId, proposal, record, version, done, close } = props;
  const { clock } = usePreferences();
  const answer = useAnswerProposal(timerId);
  const [words, setWords] = useState('');
  const give = (isAccepted: boolean) =>
    answer.mutate(
      { proposal, timerVersion: version, isAccepted, answer: words },
      { onSuccess: done, onError: done },
    );
  const rows = recordDifferences(record, proposedRecord(record, proposal.changes), clock);
  return (
    <Modal
      open
      width={720}
      title={say`${proposal.by} suggests`}
      onCancel={close}
      footer={
        answer.isSuccess
          ? [<Button key="close" type="primary" onClick={close}>{say`Done`}</Button>]
          : [
              <Button
                key="refuse"
                loading={answer.isPending}
                onClick={() => give(false)}
              >{say`Decline`}</Button>,
              <Button
                key="accept"
                type="primary"
                loading={answer.isPending}
                onClick={() => give(true)}
              >{say`Accept`}</Button>,
            ]
      }
    >
      <div className="stack">
        {answer.isSuccess ? (
          <p>
            {answer.data.state === 'accepted'
              ? say`Accepted. The record is updated; the timer still has to be keyed in.`
              : say`Declined. Nothing was changed.`}
          </p>
        ) : (
          <>
            {proposal.note !== '' && <p>“{proposal.note}”</p>}
            <Differences
              rows={rows}
              none={say`This is already set.`}
              before={say`Set now`}
              after={say`Suggested`}
            />
            <Input.TextArea
              aria-label={say`Your reply`}
              placeholder={say`Your reply`}
              rows={2}
              maxLength={2000}
              value={words}
              onChange={(event) => setWords(event.target.value)}
            />
          </>
        )}
        {answer.error && (
          <Alert type="error" title={failureWords(answer.error, say`Answer not saved`)} />
        )}
      </div>
    </Modal>
  );
}
