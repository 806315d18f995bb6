import { lazy, Suspense, useState } from 'react';
import { Alert, Button } from 'antd';
import { useProposals, type Proposal } from '../../data/api/proposals.ts';
import type { Snapshot } from '../../data/editor/editing.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { OwnProposal } from './OwnProposal.tsx';
import { say } from '@water-clock/core';

const ProposalDialog = lazy(() => import('./ProposalDialog.tsx'));

interface Props {
  readonly timerId: string;
  readonly editor: TimerEditor;
  readonly snapshot: Pick<Snapshot, 'plan' | 'survey' | 'version' | 'unsaved'>;
  /** The person who may only suggest; null: someone who may change the timer. */
  readonly proposer: string | null;
}

/** Suggestions for this timer: one's own, or those waiting for an answer. */
export default function Proposals({ timerId, editor, snapshot, proposer }: Props) {
  const { data = [] } = useProposals(timerId);
  const [looked, setLooked] = useState<Proposal | null>(null);
  if (proposer !== null)
    return (
      <OwnProposal
        timerId={timerId}
        proposals={data.filter(({ personId }) => personId === proposer)}
        unsaved={snapshot.unsaved}
        editor={editor}
      />
    );
  return (
    <>
      {data
        .filter(({ state }) => state === 'sent')
        .map((proposal) => (
          <Alert
            key={proposal.id}
            type="info"
            showIcon
            title={say`${proposal.by} suggests a change.`}
            description={proposal.note || undefined}
            action={<Button onClick={() => setLooked(proposal)}>{say`Review`}</Button>}
          />
        ))}
      {looked && (
        <Suspense>
          <ProposalDialog
            timerId={timerId}
            proposal={looked}
            record={snapshot}
            version={snapshot.version}
            done={() => void editor.noticeOwn().catch(() => undefined)}
            close={() => setLooked(null)}
          />
        </Suspense>
      )}
    </>
  );
}
