import { Button } from 'antd';
import { momentWords, parseMoment, samePlan } from '@water-clock/core';
import { usePreferences } from '../platform/preferences.tsx';
import { Chips } from '../fields/Chips.tsx';
import { frozenAt, momentText } from './panel.ts';
import { RestoreWords } from './RestoreWords.tsx';
import { useKind } from '../device/useKind.ts';
import type { VisitPartProps } from './visitPart.ts';

/** Freezes the settings as left, and notes whether they are saved inside the timer. */
export function AsLeft(props: VisitPartProps) {
  const { plan, visit, editor, now, today } = props;
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const { asLeft, savedInside } = visit;
  const isOlder = asLeft !== undefined && !samePlan(asLeft.plan, plan);
  return (
    <section aria-label="As left" className="leave-part part stack">
      <h2>As left</h2>
      <p>
        <Button
          type={asLeft && !isOlder ? 'default' : 'primary'}
          size="large"
          onClick={() =>
            editor.commit({ type: 'note-visit', fields: { asLeft: frozenAt(plan, now) } })
          }
        >
          {asLeft ? 'Freeze as left again' : 'Freeze as left'}
        </Button>{' '}
        {asLeft && (
          <span className="soft">
            Frozen {momentWords(parseMoment(asLeft.at) ?? 0, { on: today, clock, order })}.
          </span>
        )}
        {isOlder && <span className="fault"> Settings were changed since.</span>}
      </p>
      <Chips
        label="Saved inside the timer"
        options={[
          ['as-left', 'As left'],
          ['as-found', 'As found'],
          ['other', 'Something else'],
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
      {savedInside && <RestoreWords plan={asLeft?.plan ?? plan} />}
    </section>
  );
}
