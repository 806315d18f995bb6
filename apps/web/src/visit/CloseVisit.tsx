import { useRef, useState } from 'react';
import { Button } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { openPoints, openPointSentence } from '@water-clock/core';
import { newId, RefusedError } from '../api/request.ts';
import { PhotoRow } from '../photos/PhotoRow.tsx';
import { NumberField } from '../fields/NumberField.tsx';
import { momentText } from './panel.ts';
import { closeVisit, visitKeys } from '../api/visits.ts';
import type { VisitPartProps } from './visitPart.ts';
import { NoteField } from '../fields/NoteField.tsx';

/** What was done, what is still open, and the end of it. */
export function CloseVisit(props: VisitPartProps) {
  const { plan, survey, visit, editor, timerId, now } = props;
  const client = useQueryClient();
  const [fault, setFault] = useState<string | null>(null);
  const [isClosing, setIsClosing] = useState(false);
  // If the answer is lost on the way, the same write is sent again.
  const write = useRef<Parameters<typeof closeVisit>[1] | null>(null);
  const points = openPoints(plan, survey);
  const close = async () => {
    setIsClosing(true);
    setFault(null);
    try {
      const { version: baseVersion } = editor.snapshot();
      write.current ??= { id: newId(), baseVersion, closed: momentText(now) };
      await closeVisit(timerId, write.current);
      await editor.noticeOwn();
      await client.invalidateQueries({ queryKey: visitKeys.of(timerId) });
    } catch (error) {
      if (error instanceof RefusedError) write.current = null;
      setFault(
        error instanceof RefusedError
          ? error.faults.map(({ message }) => message).join(' ') || error.message
          : 'Not closed: the server cannot be reached. Try again.',
      );
    } finally {
      setIsClosing(false);
    }
  };
  const unsaved = editor.snapshot().unsaved > 0;
  return (
    <section aria-label="Close" className="leave-part">
      <h2>Close the visit</h2>
      <div className="sighting-fields">
        <NumberField
          label="Minutes spent"
          least={0}
          most={10_000}
          empty="not noted"
          value={visit.minutesSpent ?? null}
          commit={(minutesSpent) => {
            editor.commit({ type: 'note-visit', fields: { minutesSpent } });
            return null;
          }}
        />
        <label className="labelled leave-done">
          What was done
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
        label="Photos of the visit"
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
        <Link to={`/timers/${timerId}/page`}>The homeowner’s page</Link>: leave it on paper, or as a
        private link.
      </p>
      {points.length > 0 && (
        <ul className="visit-list" aria-label="Still to be done">
          {points.map((point, i) => (
            <li key={i} className="fault">
              {openPointSentence(point)}
            </li>
          ))}
        </ul>
      )}
      {fault && (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
      <Button
        type="primary"
        size="large"
        loading={isClosing}
        disabled={points.length > 0 || unsaved}
        onClick={() => void close()}
      >
        Close the visit
      </Button>
    </section>
  );
}
