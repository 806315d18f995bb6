import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { formatTime, parseTime, steppedStart } from '@water-clock/core';
import { draggedStart, type CycleShape } from './stripGeometry.ts';

export interface MoveOutcome {
  /** A start drag begins. */
  readonly onTaken: (letter: string, start: string) => void;
  /** A start being moved: shown, not made yet. */
  readonly onMoving: (letter: string, start: string, to: string) => void;
  readonly onMoved: (letter: string, start: string, to: string) => void;
  readonly onCancelled: () => void;
  /** A cycle is clicked, or Enter is pressed on it. */
  readonly onChosen: (letter: string, start: string) => void;
}

interface Move {
  readonly letter: string;
  /** Time before the move. */
  readonly start: string;
  readonly end: (keep: boolean) => void;
  to: string;
}

const LEAST_PIXELS = 3;

/**
 * Moves starts on the strip by pointer or keyboard: shown on the way, made at the end, cancelled by Escape. Listens on the window, because
 * a block moved past midnight may leave its night.
 */
export function useMoves(outcome: MoveOutcome, stepMinutes: number, secondsPerPixel: number) {
  const move = useRef<Move | null>(null);
  const latest = useRef(outcome);
  useEffect(() => {
    latest.current = outcome;
  });
  useEffect(() => () => move.current?.end(false), []);
  const [moving, setMoving] = useState<string | null>(null);

  const to = (time: string) => {
    const { current } = move;
    if (!current || current.to === time) return;
    current.to = time;
    setMoving(`${current.letter}${time}`);
    latest.current.onMoving(current.letter, current.start, time);
  };
  const begin = (cycle: CycleShape, listen: (signal: AbortSignal) => void) => {
    const abort = new AbortController();
    const end = (keep: boolean) => {
      const done = move.current;
      move.current = null;
      abort.abort();
      setMoving(null);
      if (!done) return;
      if (keep && done.to !== done.start) latest.current.onMoved(done.letter, done.start, done.to);
      else latest.current.onCancelled();
    };
    move.current = { letter: cycle.letter, start: cycle.start, to: cycle.start, end };
    setMoving(`${cycle.letter}${cycle.start}`);
    latest.current.onTaken(cycle.letter, cycle.start);
    const { signal } = abort;
    addEventListener('keydown', (event) => event.key === 'Escape' && end(false), { signal });
    listen(signal);
  };

  const onPointerDown = (cycle: CycleShape, event: PointerEvent<Element>) => {
    if (event.button !== 0 || move.current) return;
    const fromX = event.clientX;
    const second = parseTime(cycle.start) ?? 0;
    begin(cycle, (signal) => {
      addEventListener(
        'pointermove',
        ({ clientX }) => {
          const pixels = clientX - fromX;
          to(
            Math.abs(pixels) < LEAST_PIXELS
              ? cycle.start
              : formatTime(draggedStart(second, pixels, secondsPerPixel, stepMinutes)),
          );
        },
        { signal },
      );
      addEventListener(
        'pointerup',
        () => {
          const still = move.current?.to === cycle.start;
          move.current?.end(true);
          if (still) latest.current.onChosen(cycle.letter, cycle.start);
        },
        { signal },
      );
      addEventListener('pointercancel', () => move.current?.end(false), { signal });
    });
  };

  const onKeyDown = (cycle: CycleShape, event: KeyboardEvent<Element>) => {
    if (event.key === 'Enter') latest.current.onChosen(cycle.letter, cycle.start);
    const direction = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : null;
    if (direction === null) return;
    event.preventDefault();
    if (!move.current)
      begin(cycle, (signal) => {
        addEventListener('keyup', ({ key }) => key.startsWith('Arrow') && move.current?.end(true), {
          signal,
        });
        addEventListener('blur', () => move.current?.end(true), { signal });
      });
    const from = move.current?.to ?? cycle.start;
    to(formatTime(steppedStart(parseTime(from) ?? 0, direction, stepMinutes)));
  };

  return {
    /** Program and time of the start being moved; null: none. */
    moving,
    handlers: (cycle: CycleShape) => ({
      onPointerDown: (event: PointerEvent<Element>) => onPointerDown(cycle, event),
      onKeyDown: (event: KeyboardEvent<Element>) => onKeyDown(cycle, event),
    }),
  };
}
