import { useState } from 'react';
import { Button, Checkbox, Modal } from 'antd';
import { CheckCircleFilled, WarningFilled } from '@ant-design/icons';
import { Link, useNavigate } from 'react-router';
import {
  closingChange,
  notKeyed,
  undoneId,
  undoneIn,
  undoneSentence,
  type Undone,
  say,
} from '@water-clock/core';
import { useMayWork } from '../../office/account/useMay.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { PhotoRow } from '../../shared/photos/PhotoRow.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { momentText, panelNow } from '../shared/panel.ts';
import type { VisitPartProps } from '../shared/visitPart.ts';
import { NoteField } from '../../shared/fields/NoteField.tsx';
import { useKind } from '../timerKind/useKind.ts';

/** Where each point is fixed. */
const STEP_OF: Readonly<Record<Undone['what'], readonly [path: string, words: string]>> = {
  'clock-wrong': ['keyin', say`Key in`],
  'clock-not-looked': ['clock', say`Check now`],
  switched: ['leave', say`Put back`],
  'no-as-found': ['found', say`Record`],
  'no-as-left': ['leave', say`Save`],
  'as-left-is-older': ['leave', say`Save`],
  'not-keyed': ['keyin', say`Key in`],
  'not-tested': ['leave', say`Test`],
};

/** These change tonight's watering, so each needs its own confirmation. */
const GRAVE: readonly Undone['what'][] = ['clock-wrong', 'switched', 'not-keyed'];

/** Message for a group without open points. */
const DONE: readonly (readonly [words: string, ...open: Undone['what'][]])[] = [
  [say`The clock is right`, 'clock-wrong', 'clock-not-looked'],
  [say`Everything is switched back`, 'switched'],
  [say`As-found settings are saved`, 'no-as-found'],
  [say`Final settings are saved`, 'no-as-left', 'as-left-is-older'],
  [say`All changes are keyed in`, 'not-keyed', 'no-as-found'],
  [say`All watering stations are tested`, 'not-tested'],
];

interface AskProps {
  readonly points: readonly Undone[];
  readonly timerId: string;
  readonly leave: () => void;
  readonly close: () => void;
}

/** What is not done, and whether to close anyway. */
function Ask({ points, timerId, leave, close }: AskProps) {
  const [said, setSaid] = useState<readonly string[]>([]);
  const grave = points.filter(({ what }) => GRAVE.includes(what));
  const isReady = grave.every((point) => said.includes(undoneId(point)));
  return (
    <Modal
      open
      title={say`Not done yet: ${points.length}`}
      onCancel={leave}
      footer={[
        <Button
          key="leave"
          size="large"
          type="primary"
          onClick={leave}
        >{say`Go back and finish`}</Button>,
        <Button
          key="close"
          size="large"
          danger
          disabled={!isReady}
          onClick={close}
        >{say`Close anyway`}</Button>,
      ]}
    >
      <p>{say`Unfinished items go in the logbook. Important ones are added to the visits due.`}</p>
      <ul className="undone-list" aria-label={say`Not done yet`}>
        {points.map((point) => {
          const id = undoneId(point);
          const [path, words] = STEP_OF[point.what];
          const sentence = undoneSentence(point);
          return (
            <li key={id}>
              {GRAVE.includes(point.what) ? (
                <Checkbox
                  className="check"
                  checked={said.includes(id)}
                  onChange={({ target }) =>
                    setSaid(target.checked ? [...said, id] : said.filter((one) => one !== id))
                  }
                >
                  <strong>{say`Leave as is:`}</strong> {sentence}
                </Checkbox>
              ) : (
                <span>{sentence}</span>
              )}{' '}
              <Link to={`/timers/${timerId}/${path}`} onClick={leave}>
                {words}
              </Link>
            </li>
          );
        })}
      </ul>
    </Modal>
  );
}

/** What was done, what is still open, and closing. */
export function CloseVisit(props: VisitPartProps) {
  const { plan, survey, visit, editor, timerId, now } = props;
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const navigate = useNavigate();
  const mayWork = useMayWork();
  const [isAsking, setIsAsking] = useState(false);
  const [isRefused, setIsRefused] = useState(false);
  const panel = panelNow(plan, now, { clock, order, kind });
  const points = [...undoneIn(plan, survey), ...notKeyed(plan, survey, kind, panel)];
  const close = () => {
    setIsAsking(false);
    const closing = { closed: momentText(now), undone: points };
    setIsRefused(!editor.close(closing, closingChange({ plan, survey }, closing)));
  };
  return (
    <section aria-label={say`Close`} className="leave-part part stack">
      <h2>{say`Close visit`}</h2>
      <div className="sighting-fields row at-foot">
        <NumberField
          label={say`Minutes spent`}
          least={0}
          most={10_000}
          empty={say`not recorded`}
          value={visit.minutesSpent ?? null}
          commit={(minutesSpent) => {
            editor.commit({ type: 'note-visit', fields: { minutesSpent } });
            return null;
          }}
        />
        <label className="labelled leave-done grow">
          {say`Work done`}
          <NoteField
            rows={2}
            most={2000}
            value={visit.done ?? ''}
            commit={(done) =>
              editor.commit({ type: 'note-visit', fields: { done: done === '' ? null : done } })
            }
          />
        </label>
      </div>
      <PhotoRow
        label={say`Visit photos`}
        most={24}
        photos={visit.photos ?? []}
        set={(photos) =>
          editor.commit({
            type: 'note-visit',
            fields: { photos: photos.length > 0 ? photos : null },
          })
        }
      />
      <p>
        {say`Leave the homeowner’s page and the timer card on paper, or share the page as a private link.`}{' '}
        <Link to={`/timers/${timerId}/page`}>{say`Page and card`}</Link>
      </p>
      <ul className="list ruled" aria-label={say`Before you close the visit`}>
        {points.map((point) => {
          const [path, words] = STEP_OF[point.what];
          return (
            <li key={undoneId(point)}>
              <WarningFilled className="fault" aria-hidden />
              <span className={GRAVE.includes(point.what) ? 'grow fault' : 'grow'}>
                {undoneSentence(point)}
              </span>
              {path !== 'leave' && (
                <Button onClick={() => void navigate(`/timers/${timerId}/${path}`)}>{words}</Button>
              )}
            </li>
          );
        })}
        {DONE.filter(([, ...open]) => !points.some(({ what }) => open.includes(what))).map(
          ([words]) => (
            <li key={words}>
              <CheckCircleFilled className="calm" aria-hidden />
              <span className="grow">{words}</span>
            </li>
          ),
        )}
      </ul>
      {!mayWork && (
        <p className="soft">{say`Apprentices cannot close a visit. Ask a technician to close it.`}</p>
      )}
      {isRefused && (
        <p
          className="fault"
          role="alert"
        >{say`Not closed, because something has changed. Check what is not done and try again.`}</p>
      )}
      <Button
        type="primary"
        size="large"
        disabled={!mayWork}
        onClick={() => (points.length > 0 ? setIsAsking(true) : close())}
      >
        {points.length > 0 ? say`Close visit …` : say`Close visit`}
      </Button>
      {isAsking && (
        <Ask points={points} timerId={timerId} leave={() => setIsAsking(false)} close={close} />
      )}
    </section>
  );
}
