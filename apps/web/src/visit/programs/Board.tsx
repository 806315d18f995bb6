import {
  Fragment,
  memo,
  useCallback,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type ReactNode,
} from 'react';
import {
  defaultRangeExtractor,
  useVirtualizer,
  type Range as SeenRange,
} from '@tanstack/react-virtual';
import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  rectIntersection,
  useDroppable,
  useSensor,
  useSensors,
  type CollisionDetection,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { programsByLetter, runEntryText, type Plan, type Station, say } from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { useWidth } from '../../shared/charts/useWidth.ts';
import { BoardCell } from './BoardCell.tsx';
import { boardOf, isIn, rangeOf, type Cell } from './boardCells.ts';
import { CheckMark } from '../checks/CheckMark.tsx';
import { useBoard } from './useBoard.ts';
import { useBoardPlace } from './useBoardPlace.ts';
import { HeadOf, WeekOf } from './draft.tsx';

/** For touch, rows are as tall as any target. */
const ROW = matchMedia('(pointer: coarse)').matches ? 44 : 34;
/** Width of the names: preferred, and minimum. */
const STATION_COLUMN = { most: 220, least: 160 };
const WEEK_COLUMN = 148;
/** With less, the seven day buttons do not fit in a row. */
const LEAST_COLUMN = 178;
/** From this width on the names grow. */
const AMPLE_COLUMN = 216;
/** Rows and columns rendered outside the visible area. */
const BEYOND = 4;

export interface BoardProps {
  readonly plan: Plan;
  readonly editor: TimerEditor;
  /** By program, in the order of letters. */
  readonly percents: readonly number[];
}

/** The column of a program, as a drop target for run times. */
function Zone({ letter, left, width }: { letter: string; left: number; width: number }) {
  const { isOver, setNodeRef } = useDroppable({ id: letter });
  return (
    <div
      ref={setNodeRef}
      className={isOver ? 'board-zone board-zone-over' : 'board-zone'}
      style={{ left, width }}
      aria-hidden
    />
  );
}

/** The pointer decides; by keyboard, the largest overlap does. */
const overColumn: CollisionDetection = (asked) => {
  const under = pointerWithin(asked);
  return under.length > 0 ? under : rectIntersection(asked);
};

const isCell = (data: unknown): data is Cell =>
  typeof data === 'object' && data !== null && 'row' in data && 'column' in data;

/** Stations by programs: who waters when, and how long. */
export const Board = memo(function Board({ plan, editor, percents }: BoardProps) {
  const board = useMemo(() => boardOf(plan), [plan]);
  const [root, room] = useWidth<HTMLDivElement>();
  const headRow = useRef<HTMLDivElement>(null);
  useBoardPlace(root, headRow);
  const { chosen, fault, acts } = useBoard(board, editor, root);
  const range = rangeOf(chosen);
  const { letters } = board;
  const { stations, timer } = plan;
  const starts = programsByLetter(plan).map((program) => program.starts.length);
  const stationColumn = Math.min(
    STATION_COLUMN.most,
    Math.max(STATION_COLUMN.least, room - WEEK_COLUMN - letters.length * AMPLE_COLUMN),
  );
  const columnWidth = Math.max(
    LEAST_COLUMN,
    Math.floor((room - stationColumn - WEEK_COLUMN - 2) / Math.max(1, letters.length)),
  );
  const withActive = (index: number) => (seen: SeenRange) =>
    [...new Set([...defaultRangeExtractor(seen), index])].sort((a, b) => a - b);
  const rows = useVirtualizer({
    count: stations.length,
    getScrollElement: () => root.current,
    estimateSize: () => ROW,
    overscan: BEYOND,
    rangeExtractor: withActive(Math.min(chosen.active.row, stations.length - 1)),
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: letters.length,
    getScrollElement: () => root.current,
    estimateSize: () => columnWidth,
    overscan: BEYOND,
    rangeExtractor: withActive(Math.min(chosen.active.column, Math.max(0, letters.length - 1))),
  });
  useLayoutEffect(() => columns.measure(), [columns, columnWidth]);
  const { row: activeRow, column: activeColumn } = chosen.active;

  const byColumn: KeyboardCoordinateGetter = useCallback(
    (event, { currentCoordinates: { x, y } }) => {
      if (event.code === 'ArrowRight') return { x: x + columnWidth, y };
      if (event.code === 'ArrowLeft') return { x: x - columnWidth, y };
      return undefined;
    },
    [columnWidth],
  );
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: byColumn }),
  );
  const [dragged, setDragged] = useState<Cell | null>(null);

  const seen = columns.getVirtualItems();
  const whole = stationColumn + columns.getTotalSize() + WEEK_COLUMN;
  /** Content of the visible columns, with gaps for the others. */
  const across = (
    cell: (column: number, style: { width: number; marginLeft: number }) => ReactNode,
  ) =>
    seen.map(({ index, start, size }, i) => (
      <Fragment key={index}>
        {cell(index, { width: size, marginLeft: start - (seen[i - 1]?.end ?? 0) })}
      </Fragment>
    ));
  const afterwards = { marginLeft: columns.getTotalSize() - (seen.at(-1)?.end ?? 0) };
  const nameOf = ({ number, name, enabled, linkedTo }: Station) =>
    [
      `${number} ${name ?? ''}`.trim(),
      enabled === false && say`off`,
      linkedTo !== undefined && say`linked to station ${linkedTo}`,
    ]
      .filter(Boolean)
      .join(', ');
  const station = dragged && stations[dragged.row];
  return (
    <div className="stack near">
      <DndContext
        sensors={sensors}
        collisionDetection={overColumn}
        accessibility={{
          screenReaderInstructions: {
            draggable: say`Space picks up the run time, left and right choose the program, Space drops it, Escape cancels.`,
          },
          announcements: {
            onDragStart: () => say`Picked up.`,
            onDragOver: ({ over }) =>
              over ? say`Over program ${over.id}.` : say`Not over a program.`,
            onDragEnd: ({ over }) => (over ? say`Moved to program ${over.id}.` : say`Not moved.`),
            onDragCancel: () => say`Not moved.`,
          },
        }}
        onDragStart={({ active }) => {
          const { current } = active.data;
          setDragged(isCell(current) ? { row: current.row, column: current.column } : null);
        }}
        onDragCancel={() => setDragged(null)}
        onDragEnd={({ over }) => {
          setDragged(null);
          if (over && dragged) acts.move(dragged, letters.indexOf(String(over.id)));
        }}
      >
        <div
          className="board"
          ref={root}
          // Safe cast: a custom property is a property too.
          style={{ '--station-column': `${stationColumn}px` } as CSSProperties}
        >
          <div className="board-whole" style={{ width: whole }}>
            <div
              role="grid"
              aria-label={say`Minutes of each station in each program`}
              aria-rowcount={stations.length + 1}
              aria-colcount={letters.length + 2}
              aria-multiselectable
            >
              <div role="row" aria-rowindex={1} className="board-row board-head" ref={headRow}>
                <div role="columnheader" className="board-station">{say`Station`}</div>
                {across((column, style) => (
                  <div
                    role="columnheader"
                    aria-colindex={column + 2}
                    className="board-program"
                    style={style}
                  >
                    <HeadOf letter={letters[column] ?? ''} />
                  </div>
                ))}
                <div role="columnheader" className="board-week" style={afterwards}>
                  {say`Minutes a week`}
                  <span className="soft">{say`given / needed`}</span>
                </div>
              </div>
              <div role="rowgroup" className="board-body" style={{ height: rows.getTotalSize() }}>
                {rows.getVirtualItems().map(({ index: row, start }) => {
                  const here = stations[row];
                  if (!here) return null;
                  return (
                    <div
                      role="row"
                      key={here.number}
                      aria-rowindex={row + 2}
                      className={here.enabled === false ? 'board-row board-row-off' : 'board-row'}
                      style={{ transform: `translateY(${start}px)`, height: ROW, width: whole }}
                    >
                      <div role="rowheader" className="board-station" title={nameOf(here)}>
                        <b>{here.number}</b>
                        <span className="board-name clip">
                          {here.name}
                          {here.enabled === false && say` (off)`}
                          {here.linkedTo !== undefined && (
                            <span className="soft"> {say`as ${here.linkedTo}`}</span>
                          )}
                        </span>
                        <CheckMark station={here.number} />
                      </div>
                      {across((column, style) => (
                        <div className="board-place" role="presentation" style={style}>
                          <BoardCell
                            row={row}
                            column={column}
                            letter={letters[column] ?? ''}
                            station={here.number}
                            name={here.name ?? ''}
                            seconds={board.secondsAt({ row, column })}
                            stepSeconds={timer.runStepSeconds}
                            longestSeconds={timer.longestRunSeconds}
                            percent={percents[column] ?? 100}
                            seasonal={timer.seasonal}
                            starts={starts[column] ?? 1}
                            follows={here.linkedTo ?? null}
                            isActive={row === activeRow && column === activeColumn}
                            isChosen={isIn(range, { row, column })}
                            acts={acts}
                          />
                        </div>
                      ))}
                      <div role="gridcell" className="board-week" style={afterwards}>
                        <WeekOf station={here.number} />
                      </div>
                    </div>
                  );
                })}
              </div>
            </div>
            {dragged && (
              <div className="board-zones">
                {seen.map(({ index, start, size }) => (
                  <Zone
                    key={index}
                    letter={letters[index] ?? ''}
                    left={stationColumn + start}
                    width={size}
                  />
                ))}
              </div>
            )}
          </div>
        </div>
        <DragOverlay dropAnimation={null}>
          {dragged && station && (
            <div className="board-dragged">
              <b>{station.number}</b> {station.name} {runEntryText(board.secondsAt(dragged))}
            </div>
          )}
        </DragOverlay>
      </DndContext>
      {fault !== null && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
    </div>
  );
});
