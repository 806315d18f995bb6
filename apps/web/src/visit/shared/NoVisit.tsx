import { Button } from 'antd';
import { PlayCircleOutlined } from '@ant-design/icons';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { momentText } from './panel.ts';
import { say } from '@water-clock/core';

/** For a step that needs a visit: what it will hold, and a button to start one. */
export function NoVisit({
  editor,
  now,
  holds,
}: {
  readonly editor: TimerEditor;
  readonly now: number;
  readonly holds: readonly string[];
}) {
  return (
    <div className="visit-begin stack">
      <h2>{say`During a visit this step shows`}</h2>
      <ul>
        {holds.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <Button
        type="primary"
        size="large"
        icon={<PlayCircleOutlined aria-hidden />}
        onClick={() =>
          editor.commit({ type: 'note', fields: { visit: { began: momentText(now) } } })
        }
      >{say`Start visit`}</Button>
    </div>
  );
}
