import { useMemo, useState } from 'react';
import { Button } from 'antd';
import {
  attempt,
  effectivePercent,
  enteredFromShown,
  entryChange,
  expectedTotal,
  findingSentence,
  fixWords,
  HIDDEN_ANSWERS,
  HIDDEN_WORDS,
  lengthWords,
  momentWords,
  monthOf,
  orderOf,
  panelLines,
  panelText,
  parseMoment,
  parsePanel,
  planDifferences,
  programLabel,
  programName,
  safeFixes,
  sameValue,
  type Brief,
  type Entered,
  type Frozen,
  type HiddenAnswer,
  type PanelLine,
  type PanelNow,
  type Plan,
  type Visit,
} from '@water-clock/core';
import { PlanWeek } from '../planner/PlanWeek.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { Chips } from '../survey/Chips.tsx';
import { commitWords } from '../timers/commitWords.ts';
import type { TimerEditor } from '../timers/editor.ts';
import type { SurveyProps } from '../visit/SurveyViews.tsx';
import { useBrief } from '../visit/useBrief.ts';
import { Differences } from './Differences.tsx';
import { VisitFindings } from './VisitFindings.tsx';
import { NoVisit } from './NoVisit.tsx';
import { frozenAt, panelNow } from './panel.ts';
import { useKind } from './useKind.ts';
import '../planner/planner.css';
import './visits.css';

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
}

const rangeWords = ({ least, most }: Entered) =>
  least === most
    ? `entered: ${lengthWords(least)}`
    : `entered: ${lengthWords(least)} to ${lengthWords(most)}; rounding hides which`;

/** One setting, typed as it stands on the display. */
function Line({ line, plan, editor, now, shownAt }: LineProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [told, setTold] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { place, value } = line;
  const worksBack = place.of === 'run' && shownAt !== null;
  const text = panelText(value, now.hand);
  // The program stands above its lines.
  const prefix =
    'program' in place && place.program ? programName(place.program, now.hand.dialect) : '';
  const rest = line.name.slice(prefix.length).trim();
  const short = `${rest.charAt(0).toUpperCase()}${rest.slice(1)}`;
  const isEmpty =
    (value.kind === 'time' && value.second === null) ||
    (value.kind === 'run' && value.seconds === 0);
  const finish = (): boolean => {
    if (typed === null) return true;
    const read = parsePanel(value.kind, typed, now.hand, now.today);
    if (!read) {
      setFault(`"${typed}" cannot stand here.`);
      return false;
    }
    let meant = read;
    setTold(null);
    if (worksBack && read.kind === 'run') {
      const entered = enteredFromShown(read.seconds, shownAt, plan.timer);
      if (!entered) {
        setFault(`No run of this timer is shown as ${panelText(read, now.hand)} at ${shownAt} %.`);
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
      <span>{short}</span>
      <input
        className="field"
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
          if (event.key === 'Escape') setTyped(null);
          if (event.key !== 'Enter' || !finish()) return;
          event.preventDefault();
          focusNextLine(event.currentTarget);
        }}
      />
      {told && <span className="soft">{told}</span>}
      {fault && <span className="fault">{fault}</span>}
    </label>
  );
}

/** The total on the display against what has been taken down: a checksum. */
function Total({
  letter,
  plan,
  visit,
  editor,
  now,
}: {
  readonly letter: string;
  readonly plan: Plan;
  readonly visit: Visit;
  readonly editor: TimerEditor;
  readonly now: PanelNow;
}) {
  const [typed, setTyped] = useState('');
  const expected = expectedTotal(plan, letter, now.today);
  const totals = visit.totals ?? [];
  const noted = totals.find((one) => one.program === letter)?.seconds;
  if (expected === null) return null;
  const text = (seconds: number) => panelText({ kind: 'run', seconds }, now.hand);
  return (
    <label className="panel-line panel-total">
      <span>Total on the display</span>
      <input
        className="field"
        aria-label={`Program ${letter} total on the display`}
        value={typed || (noted === undefined ? '' : text(noted))}
        placeholder={text(expected)}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          const read = parsePanel('run', typed, now.hand, now.today);
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

/** The settings in this panel's order, a program at a time. */
function Entry(props: SurveyProps & { readonly visit: Visit }) {
  const { plan, editor, now, today, visit } = props;
  const { clock } = usePreferences();
  const panel = panelNow(plan, now, clock);
  const kind = useKind(plan);
  const [opened, setOpened] = useState<readonly string[]>([]);
  const [hidden, setHidden] = useState<HiddenAnswer | null>(null);
  const lines = panelLines(plan, panel).filter(({ setting }) => setting !== 'clock');
  const { dialect } = panel.hand;
  const percentOf = (letter: string) => {
    const program = plan.programs.find((one) => one.letter === letter);
    return program ? effectivePercent(plan, program, monthOf(today)) : 100;
  };
  const inProgram = (letter: string) =>
    lines.filter(
      ({ place }) =>
        (place.of === 'start' ||
          place.of === 'run' ||
          place.of === 'days' ||
          place.of === 'count' ||
          place.of === 'phase') &&
        place.program === letter,
    );
  const letters = [
    ...new Set(
      lines.flatMap(({ place }) =>
        'program' in place && place.of === 'start' ? [place.program] : [],
      ),
    ),
  ];
  const ofTimer = lines.filter(
    ({ place }) => !letters.some((letter) => inProgram(letter).some((one) => one.place === place)),
  );
  // Extras of stations have their place on the step of percent and hours; here stands what pages show.
  const general = ofTimer.filter(({ place }) =>
    ['percent', 'sensor', 'mode', 'rain-delay', 'delay'].includes(place.of),
  );
  const isUsed = (letter: string) => plan.programs.some((one) => one.letter === letter);
  const field = (line: PanelLine, letter?: string) => {
    const percent = letter === undefined ? 100 : percentOf(letter);
    const shownAt = dialect.runPage === 'adjusted' && percent !== 100 ? percent : null;
    return (
      <Line key={line.id} line={line} plan={plan} editor={editor} now={panel} shownAt={shownAt} />
    );
  };
  const order = orderOf(plan);
  const percentFirst = order.indexOf('percent') < order.indexOf('starts');
  const generalBlock = (which: readonly PanelLine[]) =>
    which.length > 0 && <div className="panel-lines">{which.map((line) => field(line))}</div>;
  const [early, late] = [
    general.filter(({ place }) => place.of === 'percent' && percentFirst),
    general.filter(({ place }) => !(place.of === 'percent' && percentFirst)),
  ];
  return (
    <>
      <p>
        Page through the timer and type what it shows, in its own order; Enter goes on. Nothing in
        the box is touched yet.
      </p>
      {dialect.runPage === 'adjusted' && (
        <p className="soft">
          Its run page shows minutes at the percent in force: type what it shows, what was entered
          is worked back.
        </p>
      )}
      {generalBlock(early)}
      {letters.map((letter) =>
        isUsed(letter) || opened.includes(letter) ? (
          <section key={letter} className="panel-program" aria-label={`Program ${letter}`}>
            <h2>
              Program {programLabel(letter, dialect)}
              {programLabel(letter, dialect) !== letter && (
                <span className="soft"> ({letter} on the strip)</span>
              )}
            </h2>
            <div className="panel-lines">
              {inProgram(letter).map((line) => field(line, letter))}
            </div>
            <Total letter={letter} plan={plan} visit={visit} editor={editor} now={panel} />
          </section>
        ) : (
          <p key={letter} className="panel-unused">
            Program {programLabel(letter, dialect)}: nothing noted. Is every start of it off?{' '}
            <Button onClick={() => setOpened([...opened, letter])}>No, take it down</Button>
          </p>
        ),
      )}
      {generalBlock(late)}
      <Chips
        label="Are programs or starts hidden?"
        options={HIDDEN_ANSWERS.map((one) => [one, HIDDEN_WORDS[one]] as const)}
        value={hidden}
        pick={setHidden}
      />
      {kind?.hides && <p className="soft">{kind.hides}</p>}
      <div>
        <Button
          type="primary"
          size="large"
          disabled={hidden === null}
          onClick={() =>
            hidden !== null &&
            editor.commit({
              type: 'note-visit',
              fields: { asFound: { ...frozenAt(plan, now), hidden } },
            })
          }
        >
          Freeze as found
        </Button>{' '}
        {hidden === null && <span className="soft">Answer the question above first.</span>}
      </div>
    </>
  );
}

/** What nobody has to think about, put right at once. */
function SafeFixes({
  plan,
  brief,
  editor,
  today,
}: {
  readonly plan: Plan;
  readonly brief: Brief;
  readonly editor: TimerEditor;
  readonly today: number;
}) {
  const { clock } = usePreferences();
  const [done, setDone] = useState<readonly string[] | null>(null);
  const fix = () => {
    const worked = attempt(() => safeFixes(plan, today, brief));
    if (!worked.ok) return;
    const { change, fixed } = worked.value;
    if (change) editor.commit(change);
    setDone(
      fixed.map(
        ({ finding, fix: one }) =>
          `${findingSentence(finding, { on: today, clock })} — ${fixWords(one, clock)}.`,
      ),
    );
  };
  return (
    <div>
      <Button size="large" onClick={fix}>
        Fix all that is safe
      </Button>{' '}
      <span className="soft">
        What changes when something runs, never how much; each by itself is below.
      </span>
      {done && (
        <ul className="visit-list" role="status">
          {done.length === 0 ? (
            <li>Nothing here is safe to fix without you.</li>
          ) : (
            done.map((one) => <li key={one}>{one}</li>)
          )}
        </ul>
      )}
    </div>
  );
}

function Found(props: SurveyProps & { readonly found: Frozen & { hidden: HiddenAnswer } }) {
  const { found, plan, site, today, editor } = props;
  const { clock } = usePreferences();
  const brief = useBrief(props);
  const at = parseMoment(found.at) ?? 0;
  const differences = useMemo(
    () => planDifferences(found.plan, plan, clock),
    [found.plan, plan, clock],
  );
  return (
    <>
      <p className="visit-frozen">
        <strong>Frozen as found</strong> {momentWords(at, { on: today, clock })}.{' '}
        {HIDDEN_WORDS[found.hidden]}. What you change from here on is what it will be.
      </p>
      <VisitFindings {...props} />
      <SafeFixes plan={plan} brief={brief} editor={editor} today={today} />
      <div className="before-after">
        <section aria-label="As found">
          <h2>As found</h2>
          <PlanWeek plan={found.plan} from={today} place={site} />
        </section>
        <section aria-label="As it is planned now">
          <h2>As planned now</h2>
          <PlanWeek plan={plan} from={today} place={site} />
        </section>
      </div>
      <Differences
        rows={differences}
        none="Nothing is changed yet."
        before="As found"
        after="Now"
      />
    </>
  );
}

/** What is in the box, before anybody touches it; and once it is frozen, what has become of it. */
export default function AsFoundView(props: SurveyProps) {
  const { survey, editor, now } = props;
  const { visit } = survey;
  return (
    <div className="survey-view">
      {!visit ? (
        <NoVisit editor={editor} now={now} />
      ) : visit.asFound ? (
        <Found {...props} found={visit.asFound} />
      ) : (
        <Entry {...props} visit={visit} />
      )}
    </div>
  );
}
