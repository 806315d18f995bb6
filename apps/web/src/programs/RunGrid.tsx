import { memo, useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import {
  adjustedSeconds,
  parseRunEntry,
  RUN_ENTRY_HELP,
  runEntryText,
  splitColumn,
  stepped,
  type Plan,
  type RunEntry,
  type Seasonal,
  type Station,
} from '@water-clock/core';

export interface RunGridProps {
  readonly letter: string;
  readonly stations: readonly Station[];
  readonly runs: Plan['programs'][number]['runs'];
  readonly stepSeconds: number;
  readonly longestSeconds: number;
  /** The percent in force: entered minutes stand beside adjusted ones. */
  readonly percent: number;
  readonly seasonal: Seasonal;
  readonly draft: (runs: readonly RunEntry[] | null) => void;
  readonly commit: (runs: readonly RunEntry[]) => void;
}

/** The change that a cell makes: an empty cell removes the run. */
const entry = (station: number, seconds: number): RunEntry => ({
  station,
  seconds: seconds === 0 ? null : seconds,
});

interface CellProps {
  readonly percent: number;
  readonly seasonal: Seasonal;
  readonly letter: string;
  readonly station: Station;
  readonly seconds: number;
  readonly stepSeconds: number;
  readonly longestSeconds: number;
  readonly draft: (runs: readonly RunEntry[] | null) => void;
  readonly commit: (runs: readonly RunEntry[]) => void;
  readonly say: (fault: string | null) => void;
  readonly paste: (station: number, text: string) => boolean;
}

const Cell = memo(function Cell(props: CellProps) {
  const { letter, station, seconds, stepSeconds, longestSeconds, draft, commit, say, paste } =
    props;
  const { percent, seasonal } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const read = typed === null ? seconds : parseRunEntry(typed);

  const change = (text: string) => {
    setTyped(text);
    say(null);
    const value = parseRunEntry(text);
    draft(value === null ? null : [entry(station.number, value)]);
  };
  const drop = () => {
    setTyped(null);
    say(null);
    draft(null);
  };
  const finish = () => {
    if (typed === null) return;
    if (read === null) {
      draft(null);
      say(`Station ${station.number}: "${typed}" is not a run time. ${RUN_ENTRY_HELP}`);
      return;
    }
    setTyped(null);
    if (read !== seconds) commit([entry(station.number, read)]);
    else draft(null);
  };
  const toNeighbour = (from: HTMLElement, direction: 1 | -1) => {
    const cells = [...(from.closest('.run-grid')?.querySelectorAll('input') ?? [])];
    cells[cells.indexOf(from as HTMLInputElement) + direction]?.focus();
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    const direction = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : null;
    if (direction !== null && read !== null) {
      event.preventDefault();
      change(runEntryText(stepped(read, direction, stepSeconds, 0, longestSeconds)));
    } else if (event.key === 'Enter') {
      event.preventDefault();
      toNeighbour(event.currentTarget, event.shiftKey ? -1 : 1);
    } else if (event.key === 'Escape') drop();
    else if (event.key === 'z' && (event.ctrlKey || event.metaKey) && typed !== null) {
      event.preventDefault();
      event.stopPropagation();
      drop();
    }
  };
  const onPaste = (event: ClipboardEvent<HTMLInputElement>) => {
    if (!paste(station.number, event.clipboardData.getData('text/plain'))) return;
    event.preventDefault();
    setTyped(null);
  };
  const name = station.name ?? '';
  return (
    <label className={seconds > 0 ? 'run-cell' : 'run-cell run-cell-empty'} title={name}>
      <span className="run-name">
        <b>{station.number}</b> {name}
        {station.enabled === false && ' (off)'}
      </span>
      <input
        className="field"
        aria-label={`Minutes of ${station.number} ${name} in ${letter}`}
        aria-invalid={typed !== null && read === null}
        value={typed ?? runEntryText(seconds)}
        placeholder="–"
        inputMode="text"
        autoComplete="off"
        spellCheck={false}
        onFocus={(event) => event.target.select()}
        onChange={(event) => change(event.target.value)}
        onBlur={finish}
        onKeyDown={onKeyDown}
        onPaste={onPaste}
      />
      {percent !== 100 && (read ?? 0) > 0 && (
        <span className="run-adjusted">
          runs {runEntryText(adjustedSeconds(read ?? 0, percent, seasonal))}
        </span>
      )}
    </label>
  );
});

/** Run minutes of a program, a cell for each station. A pasted column fills the cells from the one it is pasted into. */
export const RunGrid = memo(function RunGrid(props: RunGridProps) {
  const { letter, stations, runs, stepSeconds, longestSeconds, percent, seasonal } = props;
  const { draft, commit } = props;
  const [fault, setFault] = useState<string | null>(null);
  const latest = useRef({ stations, commit });
  latest.current = { stations, commit };

  const paste = useRef((first: number, text: string): boolean => {
    const cells = splitColumn(text);
    if (cells.length < 2) return false;
    const { stations: all, commit: make } = latest.current;
    const from = all.findIndex((station) => station.number === first);
    const targets = all.slice(from, from + cells.length);
    if (targets.length < cells.length) {
      setFault(
        `${cells.length} values were pasted, but only ${targets.length} stations follow here; nothing was changed.`,
      );
      return true;
    }
    const entries: RunEntry[] = [];
    for (const [i, cell] of cells.entries()) {
      const seconds = parseRunEntry(cell);
      const station = targets[i];
      if (seconds === null || !station) {
        setFault(
          `Line ${i + 1} of what was pasted, "${cell}", is not a run time; nothing was changed. ${RUN_ENTRY_HELP}`,
        );
        return true;
      }
      entries.push(entry(station.number, seconds));
    }
    setFault(null);
    make(entries);
    return true;
  }).current;

  return (
    <div>
      <div
        className={percent === 100 ? 'run-grid' : 'run-grid run-grid-adjusted'}
        role="group"
        aria-label={`Run minutes of ${letter}`}
      >
        {stations.map((station) => (
          <Cell
            key={station.number}
            letter={letter}
            station={station}
            seconds={runs.find((run) => run.station === station.number)?.seconds ?? 0}
            stepSeconds={stepSeconds}
            longestSeconds={longestSeconds}
            percent={percent}
            seasonal={seasonal}
            draft={draft}
            commit={commit}
            say={setFault}
            paste={paste}
          />
        ))}
      </div>
      {fault !== null && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
    </div>
  );
});
