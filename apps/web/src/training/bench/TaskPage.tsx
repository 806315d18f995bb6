import { useMemo, useState } from 'react';
import { Alert, Button } from 'antd';
import { Link, useParams } from 'react-router';
import {
  benchOf,
  MOST_LEVEL,
  momentWords,
  needsMet,
  planWith,
  randomTask,
  scoreOf,
  SECONDS_PER_DAY,
  SHIPPED_TASKS,
  spokenTask,
  TASK_FAULTS,
  wentWrongAt,
  type LiveBench,
  type LoggedAct,
  type NeedMet,
  type Score,
  type Task,
  type TaskFault,
  say,
  sayText,
  plural,
} from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useLibrary, type LibraryItem } from '../../data/api/library.ts';
import { newResultId, useKeepResult } from '../../data/api/practice.ts';
import { failureWords } from '../../data/api/request.ts';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading, NotFound } from '../../app/platform/states.tsx';
import { Bench } from './Bench.tsx';
import { KEY_WORDS } from './keyWords.ts';
import { Replay } from './Replay.tsx';
import './bench.css';

const FAULT_WORDS: Readonly<Record<TaskFault, string>> = {
  'clock-half-a-day': say`the clock is 12 hours off`,
  'start-left-over': say`a start time is left over`,
  'half-set': say`a program is not complete`,
  'percent-while-keying': say`the percent is not 100`,
  'dead-station': say`a station does not work`,
  'rain-delay-forgotten': say`a rain delay was forgotten`,
  'interval-on-forbidden-day': say`an interval falls on a day that is not allowed`,
  'overlap-at-high-percent': say`two programs overlap at a high percent`,
};

interface Outcome {
  readonly met: readonly NeedMet[];
  readonly score: Score;
  /** The presses so far. */
  readonly log: readonly LoggedAct[];
  /** Log index of the press after which it went wrong; null: none. */
  readonly wrongAt: number | null;
  /** That press as a message. */
  readonly wrong: string | null;
}

function Outcomes({ outcome, next }: { readonly outcome: Outcome; readonly next: string | null }) {
  const { met, score, wrong } = outcome;
  const lacks = met.flatMap((one) => one.lacks ?? []);
  if (lacks.length > 0)
    return (
      <Alert
        type="warning"
        role="alert"
        title={say`Not yet`}
        description={
          <ul className="points">
            {lacks.map((one) => (
              <li key={one}>{one}</li>
            ))}
            {wrong !== null && <li>{say`It was better before ${wrong}.`}</li>}
          </ul>
        }
      />
    );
  return (
    <Alert
      type="success"
      role="alert"
      title={say`Done: ${score.points} of 100 points`}
      description={
        <p>
          {say`${score.presses} presses (par ${score.usual}), ${Math.round(score.seconds / 60)} min.`}{' '}
          {plural(score.hints, '# hint.', '# hints.')}{' '}
          {next === null ? (
            <Link to="/bench/tasks">{say`All tasks`}</Link>
          ) : (
            <Link to={next}>{say`Next task`}</Link>
          )}
        </p>
      }
    />
  );
}

/** The task's text, its hints, and whether it is done. */
function Asked({
  id,
  task,
  bench,
  next,
  restart,
}: {
  readonly id: string;
  readonly task: Task;
  readonly bench: LiveBench;
  readonly next: string | null;
  readonly restart: () => void;
}) {
  const { clock, order } = usePreferences();
  const style = useMemo(() => ({ clock, order }), [clock, order]);
  const [hints, setHints] = useState(0);
  const [tries, setTries] = useState(0);
  const [answer, setAnswer] = useState<TaskFault | ''>('');
  const [outcome, setOutcome] = useState<Outcome | null>(null);
  const [began] = useState(() => Date.now());
  const [resultId] = useState(newResultId);
  const keep = useKeepResult();
  const isAsked = task.needs.some(({ need }) => need === 'answer');
  const done = () => {
    const met = needsMet(task, bench, answer === '' ? null : answer, { clock, order });
    const isDone = met.every(({ isMet }) => isMet);
    const seconds = (Date.now() - began) / 1000;
    const at = isDone ? null : wentWrongAt(task, bench.log, { clock, order });
    const act = at === null ? undefined : bench.log[at];
    const speech = { on: Math.floor(bench.now / SECONDS_PER_DAY), clock, order };
    const score = scoreOf(task, met, bench.log, { hints, tries, seconds });
    setOutcome({
      met,
      score,
      log: [...bench.log],
      wrongAt: at,
      wrong:
        act && 'key' in act
          ? say`press ${(at ?? 0) + 1}, the key “${KEY_WORDS[act.key]}” at ${momentWords(act.at, speech)}`
          : null,
    });
    if (!isDone) setTries((count) => count + 1);
    else if (!keep.isSuccess) {
      const { points, presses } = score;
      const result = { task: id, title: task.title, points, presses, hints, tries };
      keep.mutate({ ...result, id: resultId, seconds: Math.round(seconds) });
    }
  };
  return (
    <section className="stack" aria-label={say`The task`}>
      <p className="aside accent">{task.says}</p>
      <div className="row near at-foot">
        {isAsked && (
          <SelectField
            label={say`What is wrong?`}
            placeholder={say`choose`}
            value={answer}
            options={TASK_FAULTS.map((fault) => [fault, FAULT_WORDS[fault]] as const)}
            pick={setAnswer}
          />
        )}
        <Button type="primary" size="large" onClick={done}>{say`Done`}</Button>
        <Button
          size="large"
          disabled={hints === task.hints.length}
          onClick={() => setHints(hints + 1)}
        >{say`Hint`}</Button>
        <Button size="large" onClick={restart}>{say`Start again`}</Button>
      </div>
      {hints > 0 && (
        <ol className="points">
          {task.hints.slice(0, hints).map((hint) => (
            <li key={hint}>{hint}</li>
          ))}
        </ol>
      )}
      {outcome && <Outcomes outcome={outcome} next={next} />}
      {outcome && outcome.log.length > 0 && (
        <Disclosure key={tries} summary={say`Replay`} openAtFirst={outcome.wrongAt !== null}>
          {() => <Replay task={task} log={outcome.log} wrong={outcome.wrongAt} style={style} />}
        </Disclosure>
      )}
      {keep.isError && (
        <p role="alert" className="fault">
          {failureWords(keep.error, say`Result not saved`)}{' '}
          <Button onClick={done}>{say`Send again`}</Button>
        </p>
      )}
    </section>
  );
}

interface Given {
  /** Id under which its results are stored. */
  readonly id: string;
  readonly task: Task;
  readonly place: string;
  /** Address of the next task; null: it was the last. */
  readonly next: string | null;
}

function shipped(taskId: string | undefined): Given | null {
  const at = SHIPPED_TASKS.findIndex(({ id }) => id === taskId);
  const found = SHIPPED_TASKS[at];
  if (!found) return null;
  const next = SHIPPED_TASKS[at + 1];
  return {
    ...{ id: found.id, task: spokenTask(found.task) },
    place: say`Task ${at + 1} of ${SHIPPED_TASKS.length}`,
    next: next ? `/bench/tasks/${next.id}` : null,
  };
}

function ofOffice(taskId: string, all: readonly LibraryItem<Task>[]): Given | null {
  const found = all.find(({ id }) => id === taskId);
  return found ? { id: taskId, task: found.document, place: say`Office task`, next: null } : null;
}

/** @param level 1 to `MOST_LEVEL`, from the address, like the seed */
function random(level: string, seed: string): Given | null {
  if (!/^[1-9]$/u.test(level) || Number(level) > MOST_LEVEL || !/^\d{1,6}$/u.test(seed))
    return null;
  return {
    id: `random-${level}`,
    task: randomTask(Number(seed), Number(level)),
    place: say`Random task ${seed}, level ${level}`,
    next: `/bench/random/${level}/${Number(seed) + 1}`,
  };
}

/** One task on the bench: shipped, the company's own, or generated from a number. */
export default function TaskPage() {
  const { taskId, level = '', seed = '' } = useParams();
  const { clock, order } = usePreferences();
  const [round, setRound] = useState(0);
  const office = useLibrary('tasks');
  const found = useMemo(
    () =>
      taskId === undefined
        ? random(level, seed)
        : (shipped(taskId) ?? ofOffice(taskId, office.data ?? [])),
    [taskId, level, seed, office.data],
  );
  // The same object each time, because the card is derived from it.
  const target = useMemo(
    () => (found?.task.card ? planWith(found.task, found.task.card) : null),
    [found],
  );
  if (!found && taskId !== undefined && office.isPending) return <Loading what={say`the task`} />;
  if (!found && office.isError)
    return <Failed what={say`The task`} error={office.error} retry={() => void office.refetch()} />;
  if (!found) return <NotFound />;
  const { task, place, next } = found;
  return (
    <div className="page stack">
      <div className="row">
        <PageHeading title={task.title} />
        <span className="soft">
          {place}, {sayText(task.scene.plan.timer.name)}
        </span>
        <Link to="/bench/tasks">{say`All tasks`}</Link>
      </div>
      <Bench
        key={`${place}.${round}`}
        make={() => benchOf(task, { clock, order })}
        rainDelay={task.scene.rainDelay}
        target={target}
        hasWorld={task.hasWorld ?? false}
        without={task.withoutKeys ?? []}
        above={(bench) => (
          <Asked
            id={found.id}
            task={task}
            bench={bench}
            next={next}
            restart={() => setRound(round + 1)}
          />
        )}
      />
    </div>
  );
}
