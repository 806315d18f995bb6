import { Button } from 'antd';
import { useMayWork } from '../account/useMay.ts';
import type { Draft } from './useDocument.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly draft: Omit<Draft<object>, 'change'>;
  readonly done: () => void;
}

/** Saves a document and shows its faults, or both sides of a conflict. */
export function SaveBar({ draft, done }: Props) {
  const { faults, theirs, changed, saving, saved } = draft;
  const mayWork = useMayWork();
  return (
    <div className="save-bar foot-of-step row">
      {faults.length > 0 && (
        <ul role="alert" className="fault">
          {faults.slice(0, 8).map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
      {theirs && (
        <div role="alert" className="conflict notice stack">
          <p>
            <strong>
              {theirs.document
                ? say`Someone else has changed this.`
                : say`Someone else has deleted this.`}
            </strong>{' '}
            {say`Your changes are not saved yet.`}
          </p>
          <div className="tiles fill of-300">
            <div>
              <h3>{say`Saved`}</h3>
              <pre>{theirs.document ? JSON.stringify(theirs.document, null, 1) : say`deleted`}</pre>
            </div>
            <div>
              <h3>{say`Yours`}</h3>
              <pre>{JSON.stringify(draft.document, null, 1)}</pre>
            </div>
          </div>
          {theirs.document && (
            <Button onClick={() => draft.resolve('theirs')}>{say`Keep the saved version`}</Button>
          )}{' '}
          <Button
            type="primary"
            onClick={() => draft.resolve('mine')}
          >{say`Keep editing mine`}</Button>
        </div>
      )}
      <Button
        type="primary"
        size="large"
        disabled={!changed || theirs !== null || !mayWork}
        loading={saving}
        onClick={() => draft.save()}
      >{say`Save`}</Button>
      <Button size="large" onClick={done}>
        {changed ? say`Leave without saving` : say`Back to the list`}
      </Button>
      {saved && <span role="status">{say`Saved.`}</span>}
      {!mayWork && <span className="soft">{say`Apprentices cannot change the library.`}</span>}
    </div>
  );
}
