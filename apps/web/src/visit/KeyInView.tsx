import { useEffect, useRef, useState } from 'react';
import { Button, Checkbox, Input, type InputRef } from 'antd';
import {
  attempt,
  dateWords,
  factoryPlan,
  faultSentence,
  keyInBase,
  keyInLines,
  KEY_IN_SCOPES,
  panelText,
  readBack,
  readBackSentence,
  tickOf,
  type KeyIn,
  type KeyInScope,
  type KeyLine,
  type PanelNow,
  type Plan,
} from '@water-clock/core';
import { usePreferences } from '../platform/preferences.tsx';
import { Chips } from '../fields/Chips.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { NoVisit } from './NoVisit.tsx';
import { panelNow } from './panel.ts';
import { useKind } from '../device/useKind.ts';
import './visits.css';
import './visitCards.css';

const SCOPE_WORDS: Record<KeyInScope, string> = {
  changes: 'What differs from as found',
  everything: 'Everything',
  factory: 'After a factory reset',
};

interface LineProps {
  readonly line: KeyLine;
  readonly card: readonly KeyLine[];
  readonly now: PanelNow;
  readonly done: boolean;
  /** The first one that is not done. */
  readonly isNext: boolean;
  readonly reading: boolean;
  readonly tick: (done: boolean) => void;
  readonly slipped: () => void;
  readonly confirms: boolean;
  /** How to reach the setting, before its first line. */
  readonly help: string | undefined;
}

/** One setting, as large as the hand needs it. */
function Line(props: LineProps) {
  const { line, card, now, done, isNext, reading, tick, slipped, confirms, help } = props;
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  /** What was compared last, so that leaving the field does not compare it again. */
  const checked = useRef<string | null>(null);
  const [hasSlipped, setSlipped] = useState(false);
  const field = useRef<InputRef>(null);
  const item = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (!isNext) return;
    item.current?.scrollIntoView({ block: 'nearest' });
    if (reading) item.current?.querySelector('input')?.focus({ preventScroll: true });
    else item.current?.querySelector('button')?.focus({ preventScroll: true });
  }, [isNext, reading]);
  const check = () => {
    if (typed.trim() === '' || typed === checked.current) return;
    checked.current = typed;
    const answer = readBack(line, typed, card, now.style, now.today);
    if (answer.ok) {
      setFault(null);
      setTyped('');
      tick(true);
      return;
    }
    setFault(readBackSentence(answer, line, now.style));
    // Typed again, it is still the same slip.
    if (!hasSlipped) slipped();
    setSlipped(true);
    field.current?.select();
  };
  const text = panelText(line.value, now.style);
  const was = line.was && line.setting !== 'clock' ? panelText(line.was, now.style) : null;
  const words = (
    <span className="key-words">
      <span className="key-name">{line.name}</span>
      <span className="key-value">{reading && !done ? '· · ·' : text}</span>
      {was !== null && !reading && <span className="key-was soft">was {was}</span>}
    </span>
  );
  return (
    <li ref={item} className="key-group">
      {help && <span className="key-help soft">{help}</span>}
      <div className={`key-line${done ? ' key-line-done' : ''}${isNext ? ' key-line-next' : ''}`}>
        {reading && !done ? (
          <label className="key-read">
            {words}
            <Input
              ref={field}
              aria-label={`${line.name}: what the display shows`}
              aria-invalid={fault !== null}
              status={fault === null ? '' : 'error'}
              autoComplete="off"
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                // Enter compares the same text again: somebody may think that it was missed.
                check();
                field.current?.select();
              }}
              onBlur={check}
            />
          </label>
        ) : (
          <Button type="text" className="key-tick" aria-pressed={done} onClick={() => tick(!done)}>
            <span className="key-box" aria-hidden>
              {done ? '✓' : ''}
            </span>
            {words}
          </Button>
        )}
        {confirms && isNext && line.address.of !== 'total' && !reading && (
          <span className="key-confirm">then confirm, or it is lost</span>
        )}
        {fault && (
          <p className="fault" role="alert">
            {fault}
          </p>
        )}
      </div>
    </li>
  );
}

function Card({
  plan,
  base,
  keyIn,
  now,
  clockIsRight,
  notLooked,
  reading,
  set,
  reach,
  confirms,
}: {
  readonly plan: Plan;
  readonly base: Plan | null;
  readonly keyIn: KeyIn;
  readonly now: PanelNow;
  readonly clockIsRight: boolean;
  /** Ids of lines of the base of which nobody knows what stands there. */
  readonly notLooked: readonly string[];
  readonly reading: boolean;
  readonly set: (next: KeyIn) => void;
  readonly reach: ReadonlyMap<string, string>;
  readonly confirms: boolean;
}) {
  const worked = attempt(() => keyInLines(plan, base, now, clockIsRight, notLooked));
  if (!worked.ok) return <p className="fault">{worked.faults.map(faultSentence).join(' ')}</p>;
  const card = worked.value;
  const ticked = new Set(keyIn.ticked);
  const isDone = (line: KeyLine) => ticked.has(tickOf(line));
  const next = card.find((line) => !isDone(line));
  const done = card.filter(isDone).length;
  if (card.length === 0)
    return <p className="key-all">Nothing differs: there is nothing to key in.</p>;
  return (
    <>
      <p className="key-progress" role="status">
        {next ? `${done} of ${card.length} done` : `All ${card.length} done`}
        {(keyIn.slips ?? 0) > 0 &&
          `; ${keyIn.slips} ${keyIn.slips === 1 ? 'slip' : 'slips'} caught`}
      </p>
      <ol className="key-card">
        {card.map((line, i) => {
          const isFirst = card[i - 1]?.setting !== line.setting;
          const help = isFirst ? reach.get(line.setting) : undefined;
          return (
            <Line
              key={line.id}
              help={help}
              line={line}
              card={card}
              now={now}
              done={isDone(line)}
              isNext={line === next}
              reading={reading}
              confirms={confirms}
              tick={(yes) => {
                const id = tickOf(line);
                const others = keyIn.ticked.filter((one) => one !== id);
                set({ ...keyIn, ticked: yes ? [...others, id] : others });
              }}
              slipped={() => set({ ...keyIn, slips: (keyIn.slips ?? 0) + 1 })}
            />
          );
        })}
      </ol>
      {!next && (
        <p className="key-all">
          Now go through every start of every program once more: the rest say off.
        </p>
      )}
    </>
  );
}

/** The plan to be keyed in: one setting a line, in this timer's order and dialect. */
export default function KeyInView(props: StepProps) {
  const { plan, survey, editor, now, site } = props;
  const { clock, order } = usePreferences();
  const kind = useKind(plan);
  const { visit, device = {} } = survey;
  if (!visit)
    return (
      <div className="survey-view">
        <NoVisit editor={editor} now={now} />
      </div>
    );
  const panel = panelNow(plan, now, { clock, order, kind });
  const factory = factoryPlan(plan, kind);
  const scope: KeyInScope = visit.keyIn?.scope ?? (visit.asFound ? 'changes' : 'everything');
  const keyIn: KeyIn = visit.keyIn ?? { scope, ticked: [] };
  const set = (next: KeyIn) => editor.commit({ type: 'note-visit', fields: { keyIn: next } });
  const base = keyInBase(plan, visit, kind);
  const reading = keyIn.readsBack === true;
  const clockIsRight =
    scope === 'changes' &&
    device.clockShown !== undefined &&
    device.clockShown === device.clockReally;
  const reach = new Map((kind?.reach ?? []).map(({ setting, line }) => [setting, line]));
  const confirms = plan.timer.dialect?.confirms === true;
  return (
    <div className="survey-view key-in">
      <h2 className="key-title">
        Key in: {site.name}, {plan.timer.name}, {SCOPE_WORDS[scope].toLowerCase()};{' '}
        {dateWords(panel.today, null, order)}
      </h2>
      <div className="key-head">
        <Chips
          label="Key in"
          options={KEY_IN_SCOPES.filter(
            (one) => (one !== 'factory' || factory) && (one !== 'changes' || visit.asFound),
          ).map((one) => [one, SCOPE_WORDS[one]] as const)}
          value={scope}
          pick={(next) => next && set({ ...keyIn, scope: next })}
        />
        <span className="key-acts">
          <Checkbox
            checked={reading}
            onChange={({ target }) => set({ ...keyIn, readsBack: target.checked })}
          >
            Read back: type what the display shows
          </Checkbox>
          <Button onClick={() => print()}>Print</Button>
          {keyIn.ticked.length > 0 && (
            <Button type="text" onClick={() => set({ scope, ticked: [], readsBack: reading })}>
              Begin again
            </Button>
          )}
        </span>
      </div>
      <Card
        plan={plan}
        base={base}
        keyIn={keyIn}
        now={panel}
        clockIsRight={clockIsRight}
        notLooked={scope === 'changes' ? (visit.asFound?.notLooked ?? []) : []}
        reading={reading}
        set={set}
        reach={reach}
        confirms={confirms}
      />
      {reading && (
        <p className="soft key-hint">
          Read back hides what must stand there until the display was typed: Enter checks it.
        </p>
      )}
    </div>
  );
}
