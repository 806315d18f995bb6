import { useRef, useState } from 'react';
import { Alert, Button, Tag } from 'antd';
import { Link } from 'react-router';
import { faultLine, readTaskText, type Task, say } from '@water-clock/core';
import { useKeepDocument, useLibrary, type LibraryItem } from '../../data/api/library.ts';
import { failureWords, newId } from '../../data/api/request.ts';
import { FileButton } from '../../shared/fields/FileButton.tsx';
import { saveJson, textOf } from '../../app/platform/files.ts';
import { LEVELS } from './levels.ts';

/** Tasks the company wrote or imported; each is a document. */
export function OfficeTasks({ done }: { readonly done: (id: string) => string | null }) {
  const items = useLibrary('tasks');
  const keep = useKeepDocument('tasks');
  const [faults, setFaults] = useState<readonly string[]>([]);
  /** A repeated request keeps its ids, so that it is done once. */
  const ids = useRef(new Map<string, { readonly target: string; readonly id: string }>());
  const idsOf = (what: string) => {
    const own = ids.current.get(what) ?? { target: newId(), id: newId() };
    ids.current.set(what, own);
    return own;
  };
  const failed = (error: Error) => setFaults([failureWords(error, say`Not saved`)]);
  const take = async (file: File) => {
    const text = await textOf(file);
    const read = text === null ? null : readTaskText(text);
    if (!read) setFaults([say`${file.name} is too large`]);
    else if (!read.ok) setFaults(read.faults.map(faultLine));
    else
      keep.mutate(
        { ...idsOf(text ?? ''), baseVersion: 0, document: read.value },
        { onError: failed },
      );
  };
  const takeOut = ({ id: target, version: baseVersion }: LibraryItem<Task>) =>
    keep.mutate(
      { target, id: idsOf(`${target} ${baseVersion}`).id, baseVersion, document: null },
      { onError: failed },
    );
  return (
    <section className="stack near" aria-labelledby="office-tasks">
      <h2 id="office-tasks">{say`Office tasks`}</h2>
      <p>{say`Put one of your timers on the bench to make a task from it, or import a task file from another office.`}</p>
      <div>
        <FileButton
          label={say`Import task …`}
          accept=".json,application/json"
          take={([file]) => {
            setFaults([]);
            if (file) void take(file).catch(failed);
          }}
        />
      </div>
      {faults.length > 0 && (
        <Alert
          type="error"
          role="alert"
          title={say`Not done`}
          description={
            <ul className="points">
              {faults.slice(0, 10).map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          }
        />
      )}
      {items.isError && <p role="alert">{say`Office tasks could not be loaded.`}</p>}
      <ul className="list ruled">
        {(items.data ?? []).map((item) => (
          <li key={item.id}>
            <Link to={`/bench/tasks/${item.id}`}>
              <strong>{item.document.title}</strong>
            </Link>
            <Tag>{LEVELS[item.document.level - 1]}</Tag>
            {done(item.id)}
            <span className="row near">
              <Button
                size="small"
                onClick={() => saveJson(`${item.document.title}.task.json`, item.document)}
              >{say`Export`}</Button>
              <Button size="small" onClick={() => takeOut(item)}>{say`Delete`}</Button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
