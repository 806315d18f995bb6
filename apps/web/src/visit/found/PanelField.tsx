import { useState } from 'react';
import { Input } from 'antd';
import {
  adjustedSeconds,
  enteredFromShown,
  entryChange,
  expectedTotal,
  lengthWords,
  panelHelp,
  panelText,
  programLabel,
  parsePanel,
  programName,
  sameValue,
  type Entered,
  type PanelLine,
  type PanelNow,
  type PanelValue,
  type Plan,
  type Visit,
  say,
} from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { noteLooked, type Look } from '../shared/looked.ts';

const focusNextLine = (from: HTMLElement) => {
  const fields = [...document.querySelectorAll<HTMLInputElement>('[data-line]')];
  const next = fields[fields.findIndex((field) => field === from) + 1];
  next?.focus();
  next?.select();
};

interface LineProps {
  readonly line: PanelLine;
  readonly plan: Plan;
  readonly visit: Visit;
  readonly editor: TimerEditor;
  readonly now: PanelNow;
  /** The percent at which a run page shows its minutes, if not as entered. */
  readonly shownAt: number | null;
  /** The row header names it. */
  readonly bare?: boolean;
}

/** A line's name without its program, which stands above. */
export function shortName({ address: place, name }: PanelLine, { style }: PanelNow): string {
  const prefix =
    'program' in place && place.program ? programName(place.program, style.dialect) : '';
  const rest = name.slice(prefix.length).trim();
  return `${rest.charAt(0).toUpperCase()}${rest.slice(1)}`;
}

const enteredWords = ({ least, most }: Entered) =>
  least === most
    ? say`entered: ${lengthWords(least)}`
    : say`entered: between ${lengthWords(least)} and ${lengthWords(most)} (rounded)`;

/** What the display shows for a value: minutes at the current percent, if its run page does so. */
const shownOf = (value: PanelValue, shownAt: number | null, { timer }: Plan): PanelValue =>
  value.kind === 'run' && shownAt !== null
    ? { kind: 'run', seconds: adjustedSeconds(value.seconds, shownAt, timer.seasonal) }
    : value;

/** The typed text as a value, or its fault. */
function lookOf(typed: string, { line, plan, now, shownAt }: LineProps): Look | string {
  const { address, value } = line;
  if (address.of === 'phase' && /^\s*\?+\s*$/u.test(typed)) return { phaseIsUnknown: true };
  const read = parsePanel(value.kind, typed, now.style, now.today);
  if (!read) return say`“${typed}” cannot be used here. Type ${panelHelp(value.kind, now.style)}.`;
  if (address.of !== 'run' || shownAt === null || read.kind !== 'run')
    return sameValue(read, value) ? {} : { change: entryChange(plan, address, read, now) };
  // What already shows keeps its entered value, however often it is typed again.
  if (sameValue(read, shownOf(value, shownAt, plan))) return {};
  const entered = enteredFromShown(read.seconds, shownAt, plan.timer);
  if (!entered) return { shown: panelText(read, now.style) };
  const meant: PanelValue = { kind: 'run', seconds: entered.least };
  return { change: entryChange(plan, address, meant, now) };
}

/** One setting, typed as the display shows it. Until someone has looked, it shows only the planned value, greyed. */
export function PanelField(props: LineProps) {
  const { line, plan, visit, editor, now, shownAt, bare = false } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { address: place, value } = line;
  const { looked = [], shown: odd = [] } = visit.panel ?? {};
  const isLooked = looked.includes(line.id);
  const oddText = odd.find((one) => one.line === line.id)?.text;
  const text = panelText(shownOf(value, shownAt, plan), now.style);
  const kept = isLooked ? (oddText ?? text) : '';
  const isAdjusted = place.of === 'run' && shownAt !== null && value.kind === 'run';
  const finish = (): boolean => {
    if (typed === null || typed === kept) {
      setTyped(null);
      return true;
    }
    const look = lookOf(typed, props);
    if (typeof look === 'string') {
      setFault(look);
      return false;
    }
    const refused = noteLooked(editor, line, look);
    setFault(refused);
    if (refused === null) setTyped(null);
    return refused === null;
  };
  /** The value is as planned. */
  const confirm = () => {
    if (typed === null && !isLooked) setFault(noteLooked(editor, line, {}));
  };
  return (
    <label className="panel-line labelled">
      {!bare && <span>{shortName(line, now)}</span>}
      <Input
        data-line={line.id}
        data-looked={isLooked}
        aria-label={isLooked ? line.name : say`${line.name}, not checked yet, planned ${text}`}
        aria-invalid={fault !== null}
        autoComplete="off"
        enterKeyHint="next"
        value={typed ?? kept}
        placeholder={text}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Escape') {
            setTyped(null);
            setFault(null);
          }
          if (event.key !== 'Enter' || !finish()) return;
          event.preventDefault();
          confirm();
          focusNextLine(event.currentTarget);
        }}
        status={fault !== null ? 'error' : ''}
      />
      {isLooked && oddText !== undefined && (
        <span className="fault">
          {say`This timer never shows a run time of ${oddText} at ${shownAt ?? 100} %. It is saved as typed.`}
        </span>
      )}
      {isLooked && oddText === undefined && isAdjusted && value.seconds > 0 && (
        <span className="soft">{enteredOf(value.seconds, shownAt, plan)}</span>
      )}
      {fault && <span className="fault">{fault}</span>}
    </label>
  );
}

/** What may have been entered, given what the display shows. */
function enteredOf(seconds: number, shownAt: number, { timer }: Plan): string {
  const shown = adjustedSeconds(seconds, shownAt, timer.seasonal);
  const entered = enteredFromShown(shown, shownAt, timer);
  return entered ? enteredWords(entered) : say`entered: ${lengthWords(seconds)}`;
}

/** The display's total compared with what was noted, as a checksum. */
export function PanelTotal({
  letter,
  plan,
  visit,
  editor,
  now,
  bare = false,
}: Pick<LineProps, 'plan' | 'editor' | 'now' | 'bare'> & {
  readonly letter: string;
  readonly visit: Visit;
}) {
  const [typed, setTyped] = useState('');
  const expected = expectedTotal(plan, letter, now.today);
  const totals = visit.totals ?? [];
  const noted = totals.find((one) => one.program === letter)?.seconds;
  if (expected === null) return null;
  const text = (seconds: number) => panelText({ kind: 'run', seconds }, now.style);
  return (
    <label className="panel-line labelled panel-total">
      {!bare && <span>{say`Total shown`}</span>}
      <Input
        aria-label={say`Program ${programLabel(letter, plan.timer.dialect ?? {})} total shown`}
        value={typed || (noted === undefined ? '' : text(noted))}
        placeholder={text(expected)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          const read = parsePanel('run', typed, now.style, now.today);
          if (typed !== '' && read?.kind === 'run') {
            const others = totals.filter((one) => one.program !== letter);
            editor.commit({
              type: 'note-visit',
              fields: { totals: [...others, { program: letter, seconds: read.seconds }] },
            });
          }
          setTyped('');
        }}
      />
      {noted !== undefined &&
        (Math.abs(noted - expected) < 60 ? (
          <span className="calm">{say`✓ matches your readings`}</span>
        ) : (
          <span className="fault">{say`Your readings add up to ${text(expected)}. Check the run times again.`}</span>
        ))}
    </label>
  );
}
