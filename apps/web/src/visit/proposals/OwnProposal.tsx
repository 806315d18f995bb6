import { useState } from 'react';
import { Alert, Button, Input } from 'antd';
import { useMoveProposal, type Proposal } from '../../data/api/proposals.ts';
import { failureWords } from '../../data/api/request.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly timerId: string;
  /** One's own. */
  readonly proposals: readonly Proposal[];
  /** What was typed here and is not known to be saved. */
  readonly unsaved: number;
  readonly editor: TimerEditor;
}

/** For who may only propose: what they propose, and what became of it. */
export function OwnProposal({ timerId, proposals, unsaved, editor }: Props) {
  const move = useMoveProposal(timerId);
  const [note, setNote] = useState('');
  const open = proposals.find(({ state }) => state === 'draft' || state === 'sent');
  const answered = proposals.find(({ state }) => state === 'accepted' || state === 'refused');
  const step = (proposal: Proposal, state: 'draft' | 'sent' | 'withdrawn') =>
    move.mutate(
      { proposal, state, note: state === 'sent' ? note : proposal.note },
      {
        // From its new version on, the page goes on with it.
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
          title={say`You proposed this. The timer’s own record changes when somebody accepts it.`}
          action={<Button onClick={() => step(open, 'draft')}>{say`Take it back`}</Button>}
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
          title={say`${answered.answeredBy ?? say`Somebody`} ${answered.state} what you proposed.`}
          description={answered.answer || undefined}
        />
      )}
      <Alert
        type="info"
        showIcon
        title={
          open
            ? say`This is your proposal. Nobody else sees it until you send it.`
            : say`You look at it as an apprentice: what you change here is a proposal, for somebody else to accept.`
        }
        description={
          open && (
            <div className="stack">
              <Input.TextArea
                aria-label={say`Why you propose it`}
                placeholder={say`Why you propose it`}
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
                >{say`Send the proposal`}</Button>
                <Button
                  disabled={unsaved > 0}
                  onClick={() => step(open, 'withdrawn')}
                >{say`Throw it away`}</Button>
              </div>
            </div>
          )
        }
      />
      {failed}
    </>
  );
}
