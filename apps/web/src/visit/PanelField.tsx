import { useState } from 'react';
import { Input } from 'antd';
import {
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
  type Plan,
  type Visit,
} from '@water-clock/core';
import { commitWords } from '../editor/commitWords.ts';
import type { TimerEditor } from '../editor/editor.ts';

const focusNextLine = (from: HTMLElement) => {
  const fields = [...document.querySelectorAll<HTMLInputElement>('[data-line]')];
  const next = fields[fields.findIndex((field) => field === from) + 1];
  next?.focus();
  next?.select();
};

interface LineProps {
  readonly line: PanelLine;
  readonly plan: Plan;
  readonly editor: TimerEditor;
  readonly now: PanelNow;
  /** The percent at which a run page shows its runs, where it is not the runs as entered. */
  readonly shownAt: number | null;
  /** Its name stands at the head of its row. */
  readonly bare?: boolean;
}

/** The name of a line without its program, which stands above. */
export function shortName({ address: place, name }: PanelLine, { style }: PanelNow): string {
  const prefix =
    'program' in place && place.program ? programName(place.program, style.dialect) : '';
  const rest = name.slice(prefix.length).trim();
  return `${rest.charAt(0).toUpperCase()}${rest.slice(1)}`;
}

const rangeWords = ({ least, most }: Entered) =>
  least === most
    ? `entered: ${lengthWords(least)}`
    : `entered: ${lengthWords(least)} to ${lengthWords(most)}; rounding hides which`;

/** One setting, typed as the display shows it. */
export function PanelField({ line, plan, editor, now, shownAt, bare = false }: LineProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { address: place, value } = line;
  const worksBack = place.of === 'run' && shownAt !== null;
  const text = panelText(value, now.style);
  const isEmpty =
    (value.kind === 'time' && value.second === null) ||
    (value.kind === 'run' && value.seconds === 0);
  const finish = (): boolean => {
    if (typed === null) return true;
    const read = parsePanel(value.kind, typed, now.style, now.today);
    if (!read) {
      setFault(`"${typed}" cannot stand here. Type ${panelHelp(value.kind, now.style)}.`);
      return false;
    }
    let meant = read;
    setTold(null);
    if (worksBack && read.kind === 'run') {
      const entered = enteredFromShown(read.seconds, shownAt, plan.timer);
      if (!entered) {
        setFault(`No run of this timer is shown as ${panelText(read, now.style)} at ${shownAt} %.`);
        return false;
      }
      if (read.seconds > 0) setTold(rangeWords(entered));
      meant = { kind: 'run', seconds: entered.least };
    }
    const change = sameValue(meant, value) ? null : entryChange(plan, place, meant, now.today);
    const refused = change ? commitWords(editor, change) : null;
    setFault(refused);
    if (refused === null) setTyped(null);
    return refused === null;
  };
  return (
    <label className="panel-line">
      {!bare && <span>{shortName(line, now)}</span>}
      <Input
        data-line={line.id}
        aria-label={line.name}
        aria-invalid={fault !== null}
        autoComplete="off"
        enterKeyHint="next"
        value={typed ?? (isEmpty ? '' : text)}
        placeholder={value.kind === 'time' ? 'OFF' : value.kind === 'run' ? '0:00' : ''}
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
          focusNextLine(event.currentTarget);
        }}
        status={fault !== null ? 'error' : ''}
      />
      {told && <span className="soft">{told}</span>}
      {fault && <span className="fault">{fault}</span>}
    </label>
  );
}

/** The total on the display against what has been noted: a checksum. */
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
    <label className="panel-line panel-total">
      {!bare && <span>Total on the display</span>}
      <Input
        aria-label={`Program ${programLabel(letter, plan.timer.dialect ?? {})} total on the display`}
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
          <span className="agrees">✓ as taken down</span>
        ) : (
          <span className="fault">
            What is taken down adds up to {text(expected)}: look through the runs once more.
          </span>
        ))}
    </label>
  );
}
