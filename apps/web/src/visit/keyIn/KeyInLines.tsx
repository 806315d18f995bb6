import { useEffect, useRef, useState } from 'react';
import { Button, Input, Progress, type InputRef } from 'antd';
import { CheckCircleFilled, CheckOutlined } from '@ant-design/icons';
import {
  panelText,
  isOff,
  isTicked,
  programName,
  programOf,
  readBack,
  readBackSentence,
  withEqualRuns,
  type KeyIn,
  type KeyLine,
  type PanelNow,
  plural,
  say,
} from '@water-clock/core';
import { hush, speak } from '../../shared/hand/voice.ts';
import { useSwipe } from '../../shared/hand/useSwipe.ts';

interface LineProps {
  readonly line: KeyLine;
  readonly now: PanelNow;
  /** How to reach the setting, before its first line. */
  readonly help: string | undefined;
  /** What is wrong with the setting itself. */
  readonly caution: string | undefined;
}

function Words({
  line,
  now,
  caution,
  was,
}: Pick<LineProps, 'line' | 'now' | 'caution'> & { readonly was?: boolean }) {
  return (
    <span className="row grow spread">
      <span className="key-name">
        {line.name}
        {caution && <span className="fault below">{caution}</span>}
      </span>
      <span className="key-value">{panelText(line.value, now.style)}</span>
      {was && line.was && line.setting !== 'clock' && (
        <span className="key-was soft">
          {say`it showed`} <s>{panelText(line.was, now.style)}</s>
        </span>
      )}
    </span>
  );
}

/** A setting that is done or comes later. */
function Row({
  line,
  now,
  help,
  caution,
  done,
  press,
}: LineProps & { readonly done: boolean; readonly press: () => void }) {
  return (
    <li className="key-group">
      {help && <span className="key-help soft">{help}</span>}
      <div className={`key-line${done ? ' key-line-done' : ''}`}>
        <Button type="text" className="key-tick" aria-pressed={done} onClick={press}>
          <span className="key-box" aria-hidden>
            {done && <CheckCircleFilled />}
          </span>
          <Words line={line} now={now} caution={caution} />
        </Button>
      </div>
    </li>
  );
}

/** The current setting, in large type. */
function Current(
  props: LineProps & {
    readonly card: readonly KeyLine[];
    readonly reading: boolean;
    readonly aloud: boolean;
    readonly confirms: boolean;
    readonly tick: () => void;
    readonly back: () => void;
    readonly slipped: () => void;
  },
) {
  const { line, card, now, help, caution, reading, aloud, confirms, tick, back, slipped } = props;
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  /** The last compared text, so that leaving the field does not compare it again. */
  const checked = useRef<string | null>(null);
  const [hasSlipped, setSlipped] = useState(false);
  const field = useRef<InputRef>(null);
  const done = useRef<HTMLButtonElement>(null);
  const item = useRef<HTMLLIElement>(null);
  useEffect(() => {
    item.current?.scrollIntoView({ block: 'center' });
    (reading ? field.current : done.current)?.focus({ preventScroll: true });
  }, [reading]);
  const said = `${line.name}. ${panelText(line.value, now.style).toLowerCase()}`;
  useEffect(() => {
    if (!aloud) return undefined;
    speak(said);
    return hush;
  }, [aloud, said]);
  const check = () => {
    if (typed.trim() === '' || typed === checked.current) return;
    checked.current = typed;
    const answer = readBack(line, typed, card, now.style, now.today);
    if (answer.ok) return tick();
    setFault(readBackSentence(answer, line, now.style));
    // Typed again, it is the same mistake.
    if (!hasSlipped) slipped();
    setSlipped(true);
    field.current?.select();
  };
  const finish = () => {
    if (!reading) return tick();
    if (typed.trim() === '') setFault(say`Type what the timer’s display shows first.`);
    check();
    field.current?.focus();
    field.current?.select();
  };
  const swipe = useSwipe(finish, back);
  return (
    <li ref={item} className="key-group" {...swipe}>
      <div className="key-line key-line-next turn stack">
        {help && <span className="key-help soft">{help}</span>}
        <Words line={line} now={now} caution={caution} was />
        {confirms && line.address.of !== 'total' && (
          <span className="bold">{say`then confirm, or it is lost`}</span>
        )}
        <div className="key-act row">
          {reading && (
            <Input
              ref={field}
              size="large"
              aria-label={say`${line.name}: what the display shows`}
              placeholder={say`Type what it shows now`}
              aria-invalid={fault !== null}
              status={fault === null ? '' : 'error'}
              autoComplete="off"
              value={typed}
              onChange={({ target }) => setTyped(target.value)}
              onPressEnter={(event) => {
                event.preventDefault();
                // Enter compares the same text again, in case someone thinks it was missed.
                finish();
              }}
              onBlur={check}
            />
          )}
          <Button
            ref={done}
            type="primary"
            className="key-tick thumb"
            icon={<CheckOutlined aria-hidden />}
            aria-pressed={false}
            aria-label={say`Done: ${line.name}`}
            // Otherwise the field would lose focus, and be compared, before the press.
            onMouseDown={(event) => event.preventDefault()}
            onClick={finish}
          >{say`Done`}</Button>
        </div>
        {fault && (
          <p className="fault" role="alert">
            {fault}
          </p>
        )}
      </div>
    </li>
  );
}

/** Ticks what was keyed in together: everything that is off, or all of a program. */
function Bulk({
  open,
  dialect,
  tick,
}: {
  readonly dialect: PanelNow['style']['dialect'];
  readonly open: readonly KeyLine[];
  readonly tick: (lines: readonly KeyLine[]) => void;
}) {
  const off = open.filter(isOff);
  const letters = [...new Set(open.flatMap((line) => programOf(line) ?? []))];
  const groups = [
    [say`All that is off`, off] as const,
    ...letters.map(
      (letter) =>
        [
          say`All of ${programName(letter, dialect)}`,
          open.filter((line) => programOf(line) === letter),
        ] as const,
    ),
  ].filter(([, some]) => some.length > 1);
  if (groups.length === 0) return null;
  return (
    <div className="row near no-print" role="group" aria-labelledby="mark-as-done">
      <span id="mark-as-done" className="soft">{say`Mark as done:`}</span>
      {groups.map(([name, some]) => (
        <Button key={name} onClick={() => tick(some)}>
          {name}
        </Button>
      ))}
    </div>
  );
}

interface Props {
  readonly lines: readonly KeyLine[];
  readonly keyIn: KeyIn;
  readonly now: PanelNow;
  readonly aloud: boolean;
  readonly set: (next: KeyIn) => void;
  /** How to reach each setting. */
  readonly reach: ReadonlyMap<string, string>;
  /** What is wrong with a program's days, by letter. */
  readonly cautions: ReadonlyMap<string, string>;
  readonly confirms: boolean;
}

/** All settings in the timer's order: done, current and coming. */
export function KeyInLines({ lines, keyIn, now, aloud, set, reach, cautions, confirms }: Props) {
  const [picked, setPicked] = useState<string | null>(null);
  const reading = keyIn.readsBack === true;
  // To be read back, each station has a line of its own.
  const card = reading ? lines : withEqualRuns(lines, now);
  const ticked = new Set(keyIn.ticked);
  const isDone = (line: KeyLine) => isTicked(line, ticked);
  const open = card.filter((line) => !isDone(line));
  const current = open.find(({ id }) => id === picked) ?? open[0];
  const done = card.length - open.length;
  const putAll = (some: readonly KeyLine[], yes: boolean) => {
    const ticks = new Set(some.flatMap((line) => line.ticks));
    const others = keyIn.ticked.filter((one) => !ticks.has(one));
    setPicked(null);
    set({ ...keyIn, ticked: yes ? [...others, ...ticks] : others });
  };
  const put = (line: KeyLine, yes: boolean) => putAll([line], yes);
  const back = () => {
    const last = card.findLast(isDone);
    if (last) put(last, false);
  };
  const slips = keyIn.slips ?? 0;
  return (
    <>
      <Progress
        className="no-print"
        percent={Math.round((done * 100) / card.length)}
        showInfo={false}
        aria-hidden
      />
      <p className="key-progress heavy no-print" role="status">
        {open.length > 0 ? say`${done} of ${card.length} done` : say`All ${card.length} done`}
        {slips > 0 && `; ${plural(slips, '# error caught', '# errors caught')}`}
      </p>
      {!reading && (
        <Bulk open={open} dialect={now.style.dialect} tick={(some) => putAll(some, true)} />
      )}
      <ol className="key-card list column">
        {card.map((line, i) => {
          const isFirst = card[i - 1]?.setting !== line.setting;
          const shared = {
            line,
            now,
            help: isFirst || line === current ? reach.get(line.setting) : undefined,
            caution: line.address.of === 'days' ? cautions.get(line.address.program) : undefined,
          };
          return line === current ? (
            <Current
              key={line.id}
              {...shared}
              card={card}
              reading={reading}
              aloud={aloud}
              confirms={confirms}
              tick={() => put(line, true)}
              back={back}
              slipped={() => set({ ...keyIn, slips: slips + 1 })}
            />
          ) : (
            <Row
              key={line.id}
              {...shared}
              done={isDone(line)}
              // A line to be read back cannot be ticked unread; it becomes the current one.
              press={() =>
                reading && !isDone(line) ? setPicked(line.id) : put(line, !isDone(line))
              }
            />
          );
        })}
      </ol>
      {open.length === 0 && (
        <p className="heavy">{say`Now page through every start time of every program again. The rest should say off.`}</p>
      )}
    </>
  );
}
