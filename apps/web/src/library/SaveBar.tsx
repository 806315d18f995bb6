import { Button } from 'antd';
import { useMayWork } from '../people/useMay.ts';
import type { Draft } from './useDocument.ts';

interface Props {
  readonly draft: Omit<Draft<object>, 'change'>;
  readonly done: () => void;
}

/** Saves a document, shows what is wrong with it, and both sides where somebody else was faster. */
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
              Somebody else {theirs.document ? 'changed' : 'took out'} this meanwhile.
            </strong>{' '}
            Nothing of yours was saved yet.
          </p>
          <div className="tiles fill of-300">
            <div>
              <h3>Saved</h3>
              <pre>{theirs.document ? JSON.stringify(theirs.document, null, 1) : 'taken out'}</pre>
            </div>
            <div>
              <h3>Yours</h3>
              <pre>{JSON.stringify(draft.document, null, 1)}</pre>
            </div>
          </div>
          {theirs.document && (
            <Button onClick={() => draft.resolve('theirs')}>Keep what is saved</Button>
          )}{' '}
          <Button type="primary" onClick={() => draft.resolve('mine')}>
            Go on with mine
          </Button>
        </div>
      )}
      <Button
        type="primary"
        size="large"
        disabled={!changed || theirs !== null || !mayWork}
        loading={saving}
        onClick={() => draft.save()}
      >
        Save
      </Button>
      <Button size="large" onClick={done}>
        {changed ? 'Leave without saving' : 'Back to the list'}
      </Button>
      {saved && <span role="status">Saved.</span>}
      {!mayWork && <span className="soft">An apprentice changes nothing in the library.</span>}
    </div>
  );
}
