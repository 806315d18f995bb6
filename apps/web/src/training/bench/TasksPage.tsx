import { useState } from 'react';
import { Table, Tag } from 'antd';
import { CheckCircleFilled } from '@ant-design/icons';
import { Link } from 'react-router';
import { SHIPPED_TASKS, say, sayText } from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useSession } from '../../data/api/people.ts';
import { usePractice, type Practice } from '../../data/api/practice.ts';
import { LEVELS } from './levels.ts';
import { OfficeTasks } from './OfficeTasks.tsx';
import './bench.css';

/** Numbers that are easy to tell each other. */
const MOST_SEED = 10_000;

interface Learner {
  readonly personId: string;
  readonly person: string;
  readonly done: number;
  readonly points: number;
  readonly lastAt: string;
}

/** Everyone's progress, in tasks done and points. */
function learnersOf(all: readonly Practice[]): Learner[] {
  const learners = new Map<string, Learner>();
  for (const { personId, person, points, lastAt } of all) {
    const before = learners.get(personId);
    learners.set(personId, {
      personId,
      person,
      done: (before?.done ?? 0) + 1,
      points: (before?.points ?? 0) + points,
      lastAt: before && before.lastAt > lastAt ? before.lastAt : lastAt,
    });
  }
  return [...learners.values()].sort((a, b) => b.done - a.done);
}

/** Bench tasks, easiest first, with one's own results and everyone's progress. */
export default function TasksPage() {
  const practice = usePractice();
  const person = useSession().data?.person;
  const [seed] = useState(() => Math.floor(Math.random() * MOST_SEED));
  const all = practice.data ?? [];
  const own = new Map(
    all.filter(({ personId }) => personId === person?.id).map((one) => [one.task, one]),
  );
  const others = learnersOf(all).filter(({ personId }) => personId !== person?.id);
  return (
    <div className="page stack">
      <div className="row">
        <PageHeading title={say`Practice tasks`} />
        <Link to="/bench">{say`Free practice`}</Link>
      </div>
      <p className="column">{say`Each task is a timer on the bench and what the customer says. It is done when the timer does what it should, whichever keys you press.`}</p>
      {practice.isError && (
        <p role="alert">{say`Your results could not be loaded. You can still do the tasks.`}</p>
      )}
      <ul className="list tiles of-300">
        {SHIPPED_TASKS.map(({ id, task }, i) => {
          const done = own.get(id);
          return (
            <li key={id} className="aside">
              <Link to={`/bench/tasks/${id}`}>
                <strong>
                  {i + 1}. {sayText(task.title)}
                </strong>
              </Link>
              <span className="row near">
                <Tag>{LEVELS[task.level - 1]}</Tag>
                <span>{task.solution.answer ? say`Fault task` : say`Set-up task`}</span>
                {done && (
                  <strong className="push">
                    <CheckCircleFilled aria-hidden /> {say`done, ${done.points}`}
                  </strong>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      <OfficeTasks
        done={(id) => {
          const result = own.get(id);
          return result ? say`done, ${result.points}` : null;
        }}
      />
      <section className="stack near" aria-labelledby="random">
        <h2 id="random">{say`Endless practice`}</h2>
        <p>{say`A new timer each time, generated from a number. Each level is harder.`}</p>
        <div className="row near">
          {LEVELS.map((words, i) => (
            <Link key={words} to={`/bench/random/${i + 1}/${seed}`}>
              {own.has(`random-${i + 1}`)
                ? say`${words}, done ${own.get(`random-${i + 1}`)?.times ?? 0}×`
                : words}
            </Link>
          ))}
        </div>
      </section>
      {others.length > 0 && (
        <section className="stack near" aria-labelledby="learners">
          <h2 id="learners">{say`Team progress`}</h2>
          <Table<Learner>
            size="small"
            rowKey="personId"
            pagination={false}
            dataSource={others}
            columns={[
              { title: say`Person`, dataIndex: 'person' },
              {
                title: say`Tasks done`,
                dataIndex: 'done',
                render: (done: number) => say`${done} of ${SHIPPED_TASKS.length}`,
              },
              {
                title: say`Points per task`,
                dataIndex: 'points',
                render: (points: number, { done }) => Math.round(points / done),
              },
            ]}
          />
        </section>
      )}
    </div>
  );
}
