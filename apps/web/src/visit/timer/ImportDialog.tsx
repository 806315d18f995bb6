import { useState } from 'react';
import { Button, Modal } from 'antd';
import { planDifferences, type ClockStyle, type Plan, say } from '@water-clock/core';
import { PlanDocumentField } from '../../shared/fields/PlanDocumentField.tsx';

interface Props {
  readonly plan: Plan;
  readonly clock: ClockStyle;
  readonly close: () => void;
  readonly take: (plan: Plan) => void;
}

const MOST_SHOWN = 12;

/** Imports a plan document, after showing what it would change. */
export default function ImportDialog({ plan, clock, close, take }: Props) {
  const [read, setRead] = useState<Plan | null>(null);
  const differences = read ? planDifferences(plan, read, clock) : [];
  return (
    <Modal
      open
      width={720}
      title={say`Import a plan document`}
      onCancel={close}
      footer={[
        <Button key="cancel" onClick={close}>{say`Leave as it is`}</Button>,
        <Button
          key="take"
          type="primary"
          disabled={!read || differences.length === 0}
          onClick={() => read && take(read)}
        >
          {say`Import`}{' '}
          {differences.length > 0 &&
            `${differences.length} ${differences.length === 1 ? say`setting` : say`settings`}`}
        </Button>,
      ]}
    >
      <PlanDocumentField read={setRead} />
      {read && differences.length === 0 && <p>{say`It matches the current settings.`}</p>}
      {differences.length > 0 && (
        <>
          <p>{say`It would change the following, in one step you can undo:`}</p>
          <ul>
            {differences.slice(0, MOST_SHOWN).map((difference) => (
              <li key={difference.what}>
                {difference.what}: {difference.before} → {difference.after}
              </li>
            ))}
            {differences.length > MOST_SHOWN && (
              <li>{say`and ${differences.length - MOST_SHOWN} more`}</li>
            )}
          </ul>
        </>
      )}
    </Modal>
  );
}
