import { useState } from 'react';
import { Alert, Button, Input } from 'antd';
import { useMoveProposal, type Proposal } from '../../data/api/proposals.ts';
import { failureWords } from '../../data/api/request.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly timerId: string;
  /** One's own suggestion. */
  readonly proposals: readonly Proposal[];
  /** What was typed here and is not known to be saved. */
  readonly unsaved: number;
  readonly editor: TimerEditor;
}

/** For people who may only suggest: their suggestion and its outcome. */
export function OwnProposal({ timerId, proposals, unsaved, editor }: Props) {
  const move = useMoveProposal(timerId);
  const [note, setNote] = useState('');
  const open = proposals.find(({ state }) => state === 'draft' || state === 'sent');
  const answered = proposals.find(({ state }) => state === 'accepted' || state === 'refused');
  const step = (proposal: Proposal, state: 'draft' | 'sent' | 'withdrawn') =>
    move.mutate(
      { proposal, state, note: state === 'sent' ? note : proposal.note },
      {
        // From its new version on, the page continues with it.
        onSettled: () => void editor.noticeOwn().catch(() => undefined),
      },
    );
  const failed = move.error && (
    <Alert type="error" title={failureWords(move.error, say`Not done`)} />
  );
  if (open?.state === 'sent')
    return (
      <>
        <Alert
          type="info"
          showIcon
          title={say`You suggested this. The timer changes when someone accepts it.`}
          action={<Button onClick={() => step(open, 'draft')}>{say`Withdraw`}</Button>}
        />
        {failed}
      </>
    );
  return (
    <>
      {answered && !open && (
        <Alert
          type={answered.state === 'accepted' ? 'success' : 'warning'}
          showIcon
          title={
            answered.state === 'accepted'
              ? say`${answered.answeredBy ?? say`Someone`} accepted your suggestion.`
              : say`${answered.answeredBy ?? say`Someone`} declined your suggestion.`
          }
          description={answered.answer || undefined}
        />
      )}
      <Alert
        type="info"
        showIcon
        title={
          open
            ? say`This is your suggestion. Nobody else sees it until you send it.`
            : say`As an apprentice, your changes here are suggestions for someone else to accept.`
        }
        description={
          open && (
            <div className="stack">
              <Input.TextArea
                aria-label={say`Why you suggest it`}
                placeholder={say`Why you suggest it`}
                rows={2}
                maxLength={2000}
                value={note}
                onChange={(event) => setNote(event.target.value)}
              />
              <div className="row near">
                <Button
                  type="primary"
                  disabled={unsaved > 0}
                  loading={move.isPending}
                  onClick={() => step(open, 'sent')}
                >{say`Send suggestion`}</Button>
                <Button
                  disabled={unsaved > 0}
                  onClick={() => step(open, 'withdrawn')}
                >{say`Discard`}</Button>
              </div>
            </div>
          )
        }
      />
      {failed}
    </>
  );
}
