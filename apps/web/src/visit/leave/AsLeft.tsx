import { Button } from 'antd';
import { momentWords, parseMoment, samePlan, say } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Chips } from '../../shared/fields/Chips.tsx';
import { frozenAt, momentText } from '../shared/panel.ts';
import { RestoreWords } from '../log/RestoreWords.tsx';
import { useKind } from '../timerKind/useKind.ts';
import type { VisitPartProps } from '../shared/visitPart.ts';

/** Saves the settings as left, and notes whether they are in the timer's memory. */
export function AsLeft(props: VisitPartProps) {
  const { plan, visit, editor, now, today, site } = props;
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const { asLeft, savedInside } = visit;
  const isOlder = asLeft !== undefined && !samePlan(asLeft.plan, plan);
  return (
    <section aria-label={say`As left`} className="leave-part part stack">
      <h2>{say`As left`}</h2>
      <p>
        <Button
          type={asLeft && !isOlder ? 'default' : 'primary'}
          size="large"
          onClick={() =>
            editor.commit({ type: 'note-visit', fields: { asLeft: frozenAt(plan, now) } })
          }
        >
          {asLeft ? say`Save as left again` : say`Save as left`}
        </Button>{' '}
        {asLeft && (
          <span className="soft">{say`Saved ${momentWords(parseMoment(asLeft.at) ?? 0, { on: today, clock, order })}.`}</span>
        )}
        {isOlder && <span className="fault"> {say`Settings have changed since.`}</span>}
      </p>
      <Chips
        label={say`Saved in the timer`}
        options={[
          ['as-left', say`As left`],
          ['as-found', say`As found`],
          ['other', say`Something else`],
        ]}
        value={savedInside?.state ?? null}
        pick={(state) =>
          editor.commit({
            type: 'note-visit',
            fields: { savedInside: state === null ? null : { state, at: momentText(now) } },
          })
        }
      />
      {kind?.restore && <p className="soft">{kind.restore}</p>}
      {savedInside && <RestoreWords plan={asLeft?.plan ?? plan} language={site.language} />}
    </section>
  );
}
