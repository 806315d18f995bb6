import { useState } from 'react';
import { Button } from 'antd';
import {
  effectivePercent,
  expectedTotal,
  HIDDEN_ANSWERS,
  HIDDEN_WORDS,
  monthOf,
  orderOf,
  panelLines,
  programLabel,
  type HiddenAnswer,
  type PanelLine,
  type Visit,
} from '@water-clock/core';
import { usePreferences } from '../platform/preferences.tsx';
import { Chips } from '../fields/Chips.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { frozenAt, panelNow } from './panel.ts';
import { useKind } from './useKind.ts';
import { useScreen } from '../frame/useScreen.ts';
import { PanelBoard } from './PanelBoard.tsx';
import { PanelField, PanelTotal } from './PanelField.tsx';

/** The settings in this panel's order, a program at a time. */
export function PanelEntry(props: StepProps & { readonly visit: Visit }) {
  const { plan, editor, now, today, visit } = props;
  const { clock } = usePreferences();
  const panel = panelNow(plan, now, clock);
  const kind = useKind(plan);
  const [opened, setOpened] = useState<readonly string[]>([]);
  const [hidden, setHidden] = useState<HiddenAnswer | null>(null);
  const lines = panelLines(plan, panel).filter(({ setting }) => setting !== 'clock');
  const { dialect } = panel.style;
  const percentOf = (letter: string) => {
    const program = plan.programs.find((program) => program.letter === letter);
    return program ? effectivePercent(plan, program, monthOf(today)) : 100;
  };
  const inProgram = (letter: string) =>
    lines.filter(
      ({ address: place }) =>
        (place.of === 'start' ||
          place.of === 'run' ||
          place.of === 'days' ||
          place.of === 'count' ||
          place.of === 'phase') &&
        place.program === letter,
    );
  const letters = [
    ...new Set(
      lines.flatMap(({ address: place }) =>
        'program' in place && place.of === 'start' ? [place.program] : [],
      ),
    ),
  ];
  const ofTimer = lines.filter(
    ({ address: place }) =>
      !letters.some((letter) => inProgram(letter).some((line) => line.address === place)),
  );
  // Extras of stations are on the step of percent and hours; this step has what the panel shows.
  const general = ofTimer.filter(({ address: place }) =>
    ['percent', 'sensor', 'mode', 'rain-delay', 'delay'].includes(place.of),
  );
  const isUsed = (letter: string) => plan.programs.some((program) => program.letter === letter);
  const isPhone = useScreen() === 'phone';
  const field = (line: PanelLine, letter?: string, bare = false) => {
    const percent = letter === undefined ? 100 : percentOf(letter);
    const shownAt = dialect.runPage === 'adjusted' && percent !== 100 ? percent : null;
    return (
      <PanelField
        key={line.id}
        line={line}
        plan={plan}
        editor={editor}
        now={panel}
        shownAt={shownAt}
        bare={bare}
      />
    );
  };
  const total = (letter: string, bare = false) => (
    <PanelTotal letter={letter} plan={plan} visit={visit} editor={editor} now={panel} bare={bare} />
  );
  const order = orderOf(plan);
  const percentFirst = order.indexOf('percent') < order.indexOf('starts');
  const generalBlock = (which: readonly PanelLine[]) =>
    which.length > 0 && <div className="panel-lines">{which.map((line) => field(line))}</div>;
  const [early, late] = [
    general.filter(({ address: place }) => place.of === 'percent' && percentFirst),
    general.filter(({ address: place }) => !(place.of === 'percent' && percentFirst)),
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
      {isPhone &&
        letters.map((letter) =>
          isUsed(letter) || opened.includes(letter) ? (
            <section
              key={letter}
              className="panel-program"
              aria-label={`Program ${programLabel(letter, dialect)}`}
            >
              <h2>
                Program {programLabel(letter, dialect)}
                {programLabel(letter, dialect) !== letter && (
                  <span className="soft"> ({letter} on the strip)</span>
                )}
              </h2>
              <div className="panel-lines">
                {inProgram(letter).map((line) => field(line, letter))}
              </div>
              {total(letter)}
            </section>
          ) : (
            <p key={letter} className="panel-unused">
              Program {programLabel(letter, dialect)}: nothing noted. Is every start of it off?{' '}
              <Button onClick={() => setOpened([...opened, letter])}>No, take it down</Button>
            </p>
          ),
        )}
      {!isPhone && (
        <PanelBoard
          letters={letters}
          now={panel}
          linesOf={inProgram}
          field={(line, letter) => field(line, letter, true)}
          withTotal={letters.some((letter) => expectedTotal(plan, letter, today) !== null)}
          total={(letter) => total(letter, true)}
          isUnused={(letter) => !isUsed(letter) && !opened.includes(letter)}
          open={(letter) => setOpened([...opened, letter])}
        />
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
