import { useState } from 'react';
import { Button } from 'antd';
import {
  attempt,
  findingSentence,
  fixWords,
  leftSentences,
  safeFixes,
  type Brief,
  type EpochDay,
  type Plan,
  type SafeFixesMade,
  type Speech,
  plural,
  say,
} from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';

interface Props {
  readonly plan: Plan;
  readonly brief: Brief;
  readonly editor: TimerEditor;
  readonly today: EpochDay;
  readonly speech: Speech;
}

/** Fixes that need no decision: previewed, then made as one step, with reasons for what is left. */
export function SafeFixes({ plan, brief, editor, today, speech }: Props) {
  const [preview, setPreview] = useState<SafeFixesMade | null>(null);
  const look = () => {
    const worked = attempt(() => safeFixes(plan, today, brief));
    if (worked.ok) setPreview(worked.value);
  };
  if (!preview) return <Button block onClick={look}>{say`Preview safe fixes …`}</Button>;
  const { change, fixed } = preview;
  const left = leftSentences(preview);
  return (
    <div className="notice stack" role="status">
      {change ? (
        <>
          <p>{say`These fixes change when stations run, never how much:`}</p>
          <ul>
            {fixed.map(({ finding, fix }, i) => (
              <li key={i}>
                <strong>{fixWords(fix, speech.clock)}.</strong> {findingSentence(finding, speech)}
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p>
          {left.length === 0
            ? say`Nothing to fix.`
            : say`There are no safe fixes. You need to decide:`}
        </p>
      )}
      {change && left.length > 0 && <p>{say`You need to decide the rest:`}</p>}
      {left.length > 0 && (
        <ul>
          {left.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {change && (
        <Button
          type="primary"
          onClick={() => {
            editor.commit(change);
            setPreview(null);
          }}
        >
          {plural(fixed.length, 'Make this change', 'Make these # changes')}
        </Button>
      )}
      <Button onClick={() => setPreview(null)}>{change ? say`Cancel` : say`Close`}</Button>
    </div>
  );
}
