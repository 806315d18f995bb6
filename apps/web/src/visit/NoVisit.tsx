import { Button } from 'antd';
import type { TimerEditor } from '../editor/editor.ts';
import { momentText } from './panel.ts';

/** Shown where nothing can be noted before a visit has begun. */
export function NoVisit({ editor, now }: { readonly editor: TimerEditor; readonly now: number }) {
  return (
    <div className="visit-begin">
      <p>No visit is under way. What was found, done and left is noted once one has begun.</p>
      <Button
        type="primary"
        size="large"
        onClick={() =>
          editor.commit({ type: 'note', fields: { visit: { began: momentText(now) } } })
        }
      >
        Begin a visit
      </Button>
    </div>
  );
}
