/** Finding anything by a few letters, and a page's shortcuts. */
import './patience.ts';
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render } from '@testing-library/react';
import { commandsFor } from '../src/app/frame/commands.ts';
import { useKeys } from '../src/app/frame/useKeys.ts';

afterEach(cleanup);

const named = (...names: readonly string[]) =>
  names.map((name) => ({ key: name, kind: 'Step', name, run: () => undefined }));
const found = (typed: string, ...names: readonly string[]) =>
  commandsFor(typed, named(...names)).map(({ name }) => name);

test('letters find what has them in their order, the closest first', () => {
  const all = ['House and rules', 'Programs', 'Percent and hours', 'Homeowner’s page', 'Planner'];
  expect(found('pro', ...all)[0]).toBe('Programs');
  expect(found('hr', ...all)[0]).toBe('House and rules');
  expect(found('p', ...all).slice(0, 3)).toEqual(['Programs', 'Percent and hours', 'Planner']);
  expect(found('HOMEOWNERS', ...all)).toEqual(['Homeowner’s page']);
  expect(found('', ...all)).toEqual(all);
  expect(found('xyz', ...all)).toEqual([]);
});

test('a single key acts, but is text where somebody types; Control K acts everywhere', () => {
  const [undo, go] = [jest.fn(), jest.fn()];
  function Page() {
    useKeys({ u: undo, 'mod+k': go });
    // Stands for any field.
    return <input aria-label="field" />;
  }
  const { getByLabelText } = render(<Page />);
  fireEvent.keyDown(document.body, { key: 'u' });
  expect(undo).toHaveBeenCalledTimes(1);
  fireEvent.keyDown(getByLabelText('field'), { key: 'u' });
  fireEvent.keyDown(document.body, { key: 'u', altKey: true });
  fireEvent.keyDown(document.body, { key: 'u', ctrlKey: true });
  expect(undo).toHaveBeenCalledTimes(1);
  fireEvent.keyDown(getByLabelText('field'), { key: 'K', ctrlKey: true });
  fireEvent.keyDown(document.body, { key: 'k', metaKey: true });
  expect(go).toHaveBeenCalledTimes(2);
});
