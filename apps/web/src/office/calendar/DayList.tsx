import { lazy, Suspense, useState } from 'react';
import { Alert, Button, Tag } from 'antd';
import { HolderOutlined } from '@ant-design/icons';
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { Link, useNavigate } from 'react-router';
import {
  useConfirmWatering,
  useOrderDay,
  type CalendarVisit,
  type DayOrder,
} from '../../data/api/calendar.ts';
import { useSession } from '../../data/api/people.ts';
import { failureWords } from '../../data/api/request.ts';
import { useScreen } from '../../app/frame/useScreen.ts';
import { useMayWork } from '../account/useMay.ts';
import { START_VISIT } from '../../visit/shared/startVisit.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { dateIn } from '../../app/platform/dateIn.ts';
import { byDistance, inOrder, placeWords, wayOf } from './order.ts';
import { say } from '@water-clock/core';

const VisitDialog = lazy(() => import('./VisitDialog.tsx'));

interface ItemProps {
  readonly visit: CalendarVisit;
  readonly today: string;
  readonly sorts: boolean;
  readonly plan: (visit: CalendarVisit) => void;
}

const FOLLOW_UP = 'follow-up';

/** Confirms that the first watering ran. */
function Confirm({ visit: { timerId, site }, today }: Pick<ItemProps, 'visit' | 'today'>) {
  const navigate = useNavigate();
  const confirm = useConfirmWatering();
  const by = useSession().data?.person?.name ?? '';
  return (
    <>
      <Button
        type="primary"
        loading={confirm.isPending}
        aria-label={say`It ran at ${site}`}
        onClick={() => confirm.mutate({ timerId, on: today, by })}
      >{say`It ran`}</Button>
      <Button
        aria-label={say`It did not run at ${site}`}
        onClick={() => void navigate(`/timers/${timerId}/seen`)}
      >{say`It did not run`}</Button>
      {confirm.error && (
        <span className="fault">{failureWords(confirm.error, say`Not recorded`)}</span>
      )}
    </>
  );
}

function Item({ visit, today, sorts, plan }: ItemProps) {
  const { timerId, site, reasons, stop, person, overdue, kinds } = visit;
  const navigate = useNavigate();
  const mayWork = useMayWork();
  const isPhone = useScreen() === 'phone';
  const { order } = usePreferences();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } =
    useSortable({ id: timerId, disabled: !sorts });
  const acts = mayWork && (
    <span className="row near">
      {kinds.includes(FOLLOW_UP) ? (
        <Confirm visit={visit} today={today} />
      ) : (
        <Button
          aria-label={say`Start visit: ${site}`}
          onClick={() => void navigate(`/timers/${timerId}/found`, { state: START_VISIT })}
        >{say`Start visit`}</Button>
      )}
      <Button
        type="text"
        aria-label={say`Plan: ${site}`}
        onClick={() => plan(visit)}
      >{say`Plan`}</Button>
    </span>
  );
  const style = {
    transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
    transition,
  };
  return (
    <li ref={setNodeRef} style={style}>
      {sorts && (
        <Button
          type="text"
          ref={setActivatorNodeRef}
          icon={<HolderOutlined />}
          {...attributes}
          {...listeners}
          aria-label={say`Move ${site}`}
          style={{ touchAction: 'none', cursor: 'grab' }}
        />
      )}
      <div className="grow">
        <Link className="plain heavy" to={`/timers/${timerId}`}>
          {site}
        </Link>{' '}
        <span className="soft">{placeWords(visit)}</span>{' '}
        {overdue && visit.date !== today && (
          <Tag color="red">{say`overdue since ${dateIn(visit.date, order)}`}</Tag>
        )}
        {person && <Tag>{person.name}</Tag>}
        <div>{[stop?.note, ...reasons].filter(Boolean).join('; ') || say`planned visit`}</div>
        {isPhone && acts}
      </div>
      {!isPhone && acts}
    </li>
  );
}

interface Props {
  readonly visits: readonly CalendarVisit[];
  /** For this day and person; null: not ordered yet. */
  readonly order: DayOrder | null;
  /** Null: a list without an order of its own, such as overdue visits. */
  readonly day: { readonly date: string; readonly personId: string | null } | null;
  /** `YYYY-MM-DD`. */
  readonly today: string;
  readonly none: string;
}

/** A day's visits, ordered by dragging, by town and street, or by distance. */
export function DayList({ visits, order, day, today, none }: Props) {
  const mayWork = useMayWork();
  const put = useOrderDay();
  const [planned, plan] = useState<CalendarVisit | null>(null);
  /** The dragged order, until the server confirms it. */
  const [dragged, setDragged] = useState<readonly string[] | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  if (visits.length === 0) return <p className="soft">{none}</p>;
  const sorted = inOrder(visits, (put.isPending && dragged) || (order?.timerIds ?? []));
  const sorts = mayWork && day !== null && visits.length > 1;
  const save = (all: readonly CalendarVisit[]) => {
    if (!day) return;
    const timerIds = all.map(({ timerId }) => timerId);
    setDragged(timerIds);
    put.mutate({ ...day, version: order?.version ?? 0, timerIds });
  };
  const km = wayOf(sorted);
  return (
    <>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => {
          const ids = sorted.map(({ timerId }) => timerId);
          const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over?.id))];
          if (from >= 0 && to >= 0 && from !== to) save(arrayMove(sorted, from, to));
        }}
      >
        <SortableContext
          items={sorted.map(({ timerId }) => timerId)}
          strategy={verticalListSortingStrategy}
        >
          <ul className="list ruled">
            {sorted.map((visit) => (
              <Item key={`${visit.timerId} ${visit.date}`} {...{ visit, today, sorts, plan }} />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      {sorts && (
        <div className="row near">
          <Button
            size="small"
            onClick={() => save(inOrder(visits, []))}
          >{say`By town and street`}</Button>
          <Button
            size="small"
            disabled={km === null}
            onClick={() => save(byDistance(visits))}
          >{say`By distance`}</Button>
          {km !== null && (
            <span className="soft">
              {km === 0
                ? say`less than 1 km in a straight line`
                : say`about ${km} km in a straight line`}
            </span>
          )}
        </div>
      )}
      {put.error && (
        <Alert type="error" role="alert" title={failureWords(put.error, say`Order not saved`)} />
      )}
      {planned && (
        <Suspense>
          <VisitDialog visit={planned} close={() => plan(null)} />
        </Suspense>
      )}
    </>
  );
}
