import { useState } from 'react';
import { Button, Progress } from 'antd';
import {
  effectivePercent,
  expectedTotal,
  factoryPlan,
  HIDDEN_ANSWERS,
  HIDDEN_WORDS,
  monthOf,
  orderOf,
  panelLines,
  programLabel,
  type HiddenAnswer,
  type PanelLine,
  type Visit,
  plural,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Chips } from '../../shared/fields/Chips.tsx';
import { PhotoRow } from '../../shared/photos/PhotoRow.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { frozenAt, panelNow } from '../shared/panel.ts';
import { useKind } from '../timerKind/useKind.ts';
import { useScreen } from '../../app/frame/useScreen.ts';
import { FirstLook } from './FirstLook.tsx';
import { noteAsPlanned } from '../shared/looked.ts';
import { PanelBoard } from './PanelBoard.tsx';
import { PanelField, PanelTotal } from './PanelField.tsx';

/** Settings of the whole timer; extras of stations are with the stations. */
const GENERAL: readonly PanelLine['address']['of'][] = [
  'percent',
  'sensor',
  'mode',
  'rain-delay',
  'delay',
  'linked',
];

const programOf = ({ address: place }: PanelLine): string | null =>
  place.of === 'start' ||
  place.of === 'run' ||
  place.of === 'days' ||
  place.of === 'count' ||
  place.of === 'phase'
    ? place.program
    : null;

/** Answers until they are saved as found, by timer and visit: someone may look at another step first. */
const unsavedAnswers = new Map<string, HiddenAnswer | null>();

function useHiddenAnswer(key: string) {
  const [hidden, setHidden] = useState(unsavedAnswers.get(key) ?? null);
  const keep = (answer: HiddenAnswer | null) => {
    unsavedAnswers.set(key, answer);
    setHidden(answer);
  };
  return [hidden, keep] as const;
}

/** The settings in panel order, one program at a time. Nothing counts as seen before someone has looked. */
export function PanelEntry(props: StepProps & { readonly visit: Visit }) {
  const { plan, editor, now, today, visit, timerId } = props;
  const { clock, order: dateOrder } = usePreferences();
  const kind = useKind(plan);
  const panel = panelNow(plan, now, { clock, order: dateOrder, kind });
  const [opened, setOpened] = useState<readonly string[]>([]);
  const [hidden, setHidden] = useHiddenAnswer(`${timerId} ${visit.began}`);
  const lines = panelLines(plan, panel).filter(({ setting }) => setting !== 'clock');
  const { dialect } = panel.style;
  const percentOf = (letter: string) => {
    const program = plan.programs.find((program) => program.letter === letter);
    return program ? effectivePercent(plan, program, monthOf(today)) : 100;
  };
  const inProgram = (letter: string) => lines.filter((line) => programOf(line) === letter);
  const letters = [...new Set(lines.flatMap((line) => programOf(line) ?? []))];
  const general = lines.filter(({ address }) => GENERAL.includes(address.of));
  const isUsed = (letter: string) => plan.programs.some((program) => program.letter === letter);
  const isUnused = (letter: string) => !isUsed(letter) && !opened.includes(letter);
  /** Only the starts of an empty program are asked for. */
  const askedOf = (letter: string) =>
    inProgram(letter).filter(({ address }) => !isUnused(letter) || address.of === 'start');
  const asked = [...general, ...letters.flatMap(askedOf)];
  const looked = new Set(visit.panel?.looked);
  const notLooked = asked.filter(({ id }) => !looked.has(id));
  const isLooked = (some: readonly PanelLine[]) => some.every(({ id }) => looked.has(id));
  const isPhone = useScreen() === 'phone';
  const field = (line: PanelLine, letter?: string, bare = false) => {
    const percent = letter === undefined ? 100 : percentOf(letter);
    const shownAt = dialect.runPage === 'adjusted' && percent !== 100 ? percent : null;
    return (
      <PanelField
        key={line.id}
        line={line}
        plan={plan}
        visit={visit}
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
  const asPlanned = (letter: string) => {
    const rest = askedOf(letter).filter(({ id }) => !looked.has(id));
    if (isUnused(letter) || rest.length === 0) return null;
    return (
      <Button onClick={() => noteAsPlanned(editor, rest)}>
        {rest.length === askedOf(letter).length ? say`All as planned` : say`Rest as planned`}
      </Button>
    );
  };
  const unused = (letter: string) => (
    <>
      {isLooked(askedOf(letter))
        ? `${say`All its start times are off.`} `
        : `${say`Are all its start times off?`} `}
      {!isLooked(askedOf(letter)) && (
        <Button onClick={() => noteAsPlanned(editor, askedOf(letter))}>{say`Yes, all off`}</Button>
      )}{' '}
      <Button onClick={() => setOpened([...opened, letter])}>{say`No, enter them`}</Button>
    </>
  );
  const order = orderOf(plan);
  const percentFirst = order.indexOf('percent') < order.indexOf('starts');
  const generalBlock = (which: readonly PanelLine[]) =>
    which.length > 0 && <div className="tiles of-150">{which.map((line) => field(line))}</div>;
  const [early, late] = [
    general.filter(({ address: place }) => place.of === 'percent' && percentFirst),
    general.filter(({ address: place }) => !(place.of === 'percent' && percentFirst)),
  ];
  const factory = factoryPlan(plan, kind);
  const freeze = () => {
    if (hidden === null) return;
    const { shown, photos } = visit.panel ?? {};
    editor.commit({
      type: 'note-visit',
      fields: {
        asFound: {
          ...frozenAt(plan, now),
          hidden,
          ...(notLooked.length > 0 ? { notLooked: notLooked.map(({ id }) => id) } : {}),
          ...(shown ? { shown } : {}),
          ...(photos ? { photos } : {}),
        },
        panel: null,
      },
    });
  };
  return (
    <>
      <FirstLook {...props} />
      <p>{say`Page through the timer and type what it shows, in its own order. Planned values are grey; press Enter if the display matches. Do not change the timer yet.`}</p>
      <div className="panel-progress row">
        <Progress
          percent={Math.round(((asked.length - notLooked.length) * 100) / asked.length)}
          showInfo={false}
          aria-label={say`Checked`}
        />
        <span role="status">
          {say`${asked.length - notLooked.length} of ${asked.length} checked`}
        </span>
        {factory && looked.size === 0 && (
          <Button
            onClick={() => {
              const { site: _site, ...bare } = factory;
              editor.commit({ type: 'replace-plan', plan: bare });
              noteAsPlanned(editor, panelLines(factory, panel));
            }}
          >{say`New timer: factory settings`}</Button>
        )}
      </div>
      {dialect.runPage === 'adjusted' && (
        <p className="soft">{say`Its run time page shows minutes adjusted by the percent. Type what it shows, and we work back to what was entered.`}</p>
      )}
      {generalBlock(early)}
      {letters.some((letter) => percentOf(letter) !== 100) && (
        <Chips
          label={say`Do the minutes on the display change with the percent?`}
          options={[
            ['adjusted', say`Yes, they change`],
            ['entered', say`No, they stay as entered`],
          ]}
          value={dialect.runPage ?? null}
          pick={(runPage) => {
            const { runPage: _before, ...rest } = dialect;
            const { timer } = plan;
            editor.commit({
              type: 'set-timer',
              timer: { ...timer, dialect: runPage === null ? rest : { ...rest, runPage } },
            });
          }}
        />
      )}
      {isPhone &&
        letters.map((letter) => (
          <section
            key={letter}
            className="part stack"
            aria-label={say`Program ${programLabel(letter, dialect)}`}
          >
            <h2>
              {say`Program ${programLabel(letter, dialect)}`}
              {programLabel(letter, dialect) !== letter && (
                <span className="soft"> {say`(${letter} on the strip)`}</span>
              )}{' '}
              {asPlanned(letter)}
            </h2>
            {isUnused(letter) ? (
              <p className="row near">{unused(letter)}</p>
            ) : (
              <>
                <div className="tiles of-150">
                  {inProgram(letter).map((line) => field(line, letter))}
                </div>
                {total(letter)}
              </>
            )}
          </section>
        ))}
      {!isPhone && (
        <PanelBoard
          letters={letters}
          now={panel}
          linesOf={inProgram}
          field={(line, letter) => field(line, letter, true)}
          withTotal={letters.some((letter) => expectedTotal(plan, letter, today) !== null)}
          total={(letter) => total(letter, true)}
          unused={(letter) => (isUnused(letter) ? unused(letter) : null)}
          asPlanned={asPlanned}
        />
      )}
      {generalBlock(late)}
      <PhotoRow
        label={say`Photos of the panel`}
        photos={visit.panel?.photos ?? []}
        set={(photos) =>
          editor.commit({ type: 'note-visit', fields: { panel: { ...visit.panel, photos } } })
        }
      />
      <Chips
        label={say`Are programs or start times hidden?`}
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
          onClick={freeze}
        >{say`Save as found`}</Button>{' '}
        {hidden === null && <span className="soft">{say`Answer the question above first.`} </span>}
        {notLooked.length > 0 && (
          <span className="fault">
            {plural(
              notLooked.length,
              '# setting was not checked. As found, it counts as not known.',
              '# settings were not checked. As found, they count as not known.',
            )}
          </span>
        )}
      </div>
    </>
  );
}
