import { useMemo, useState } from 'react';
import { Alert, Button, Modal, Radio } from 'antd';
import {
  CLOSING_AT,
  mergeRecords,
  momentWords,
  recordDifferences,
  SECONDS_PER_DAY,
  undoneSentence,
  whoChanged,
  type ClockStyle,
  type Choices,
  type Clash,
  type DateOrder,
  type Side,
  type Undone,
  say,
} from '@water-clock/core';
import { civilSecond, deviceZone } from '../../app/platform/zone.ts';
import type { Conflict } from './editing.ts';

const toTheMinute = (second: number) => second - (second % 60);

/** The subject of a clash and both values, as messages. */
interface Row {
  readonly at: string;
  readonly what: string;
  readonly theirs: string;
  readonly mine: string;
  readonly by: string;
  /** ISO. */
  readonly changedAt: string | null;
}

const CLOSED = { what: say`The end of the visit`, mine: say`closed`, theirs: say`still open` };

function wordsOf(
  { base, mine, theirs }: Conflict,
  { at, theirs: points }: Clash,
  clock: ClockStyle,
): Pick<Row, 'what' | 'mine' | 'theirs'> {
  if (at === CLOSING_AT) {
    // Safe cast: undone work is what such a clash is about.
    const undone = (points as readonly Undone[]).map(undoneSentence).join(' ');
    return { ...CLOSED, theirs: `${CLOSED.theirs}: ${undone}` };
  }
  const with_ = (side: Side) => mergeRecords(base, mine, theirs, new Map([[at, side]])).record;
  const rows = recordDifferences(with_('theirs'), with_('mine'), clock);
  return {
    what: rows.map(({ what }) => what).join(', ') || at.replaceAll('/', ' '),
    theirs: rows.map(({ before }) => before).join(', '),
    mine: rows.map(({ after }) => after).join(', '),
  };
}

interface Props {
  readonly conflict: Conflict;
  readonly clock: ClockStyle;
  readonly order: DateOrder;
  readonly resolve: (choices: Choices) => void;
}

/** Two tabs or people changed the same facts of a timer: shows both sides, with who and when, and asks which to keep. */
export default function ConflictDialog({ conflict, clock, order, resolve }: Props) {
  const [chosen, setChosen] = useState<Choices>(new Map());
  const { base, theirs, open, mineAt } = conflict;
  const moment = (iso: string | null) =>
    iso === null || iso === ''
      ? null
      : momentWords(toTheMinute(civilSecond(new Date(iso), deviceZone())), {
          on: Math.floor(civilSecond(new Date(), deviceZone()) / SECONDS_PER_DAY),
          ...{ clock, order },
        });
  const rows = useMemo(
    () =>
      open.map((clash): Row => {
        const who = whoChanged(base, theirs.since ?? [], clash.at) ?? theirs;
        return {
          ...{ at: clash.at, by: who.by ?? say`Someone`, changedAt: who.at },
          ...wordsOf(conflict, clash, clock),
        };
      }),
    [conflict, base, theirs, open, clock],
  );
  const isAnswered = rows.every(({ at }) => chosen.has(at));
  return (
    <Modal
      open
      width={720}
      closable={false}
      keyboard={false}
      mask={{ closable: false }}
      title={
        rows.length === 1
          ? say`Two people changed the same thing. Which one is right?`
          : say`Two people changed the same ${rows.length} things. Which ones are right?`
      }
      footer={[
        <Button
          key="save"
          size="large"
          type="primary"
          disabled={!isAnswered}
          onClick={() => resolve(chosen)}
        >{say`Save these choices`}</Button>,
      ]}
    >
      <p>{say`All other changes are already merged. Yours are not saved until you choose.`}</p>
      {rows.map(({ at, what, theirs: other, mine, by, changedAt }) => {
        const when = moment(changedAt);
        const yourWhen = moment(mineAt);
        return (
          <Radio.Group
            key={at}
            className="stack near clash"
            aria-label={what}
            value={chosen.get(at)}
            onChange={({ target }) =>
              setChosen(new Map([...chosen, [at, target.value === 'mine' ? 'mine' : 'theirs']]))
            }
          >
            <h3>{what}</h3>
            <Radio value="theirs">
              <strong>{other}</strong>{' '}
              <span className="soft">
                {by}
                {when && `, ${when}`}
              </span>
            </Radio>
            <Radio value="mine">
              <strong>{mine}</strong>{' '}
              <span className="soft">
                {yourWhen ? say`you, ${yourWhen} by this device’s clock` : say`you`}
              </span>
            </Radio>
          </Radio.Group>
        );
      })}
      {rows.length > 1 && (
        <div className="row">
          <Button
            onClick={() => setChosen(new Map(open.map(({ at }) => [at, 'theirs'])))}
          >{say`Use all of theirs`}</Button>
          <Button
            onClick={() => setChosen(new Map(open.map(({ at }) => [at, 'mine'])))}
          >{say`Use all of mine`}</Button>
        </div>
      )}
      <Alert
        type="info"
        title={say`Settings are checked again when you save, because two good changes can overlap together.`}
      />
    </Modal>
  );
}
