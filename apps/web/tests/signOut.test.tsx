/** Sign-out says first what would be lost, and claims afterwards only what is known. */
import './patience.ts';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { workFor } from '../src/data/api/whose.ts';
import { keepPending } from '../src/data/editor/pendingWrites.ts';
import SignOutDialog from '../src/app/frame/SignOutDialog.tsx';
import { queueOf } from './queues.ts';

const asked: string[] = [];
let answer: () => Promise<object>;
const api = (status: number, code?: string) => () =>
  Promise.resolve({
    ok: status < 300,
    status,
    headers: new Headers({ 'water-clock-api': '1' }),
    json: () => Promise.resolve({ code, message: code }),
  });

beforeEach(() => {
  localStorage.clear();
  asked.length = 0;
  answer = api(204);
  Object.assign(globalThis, {
    fetch: (path: string, { method }: RequestInit) => {
      asked.push(`${method} ${path}`);
      return answer();
    },
  });
  workFor({ id: 'tamsin', companyId: 'brindlewick' });
  localStorage.setItem('preferences', '{"theme":"night"}');
});
afterEach(cleanup);

const open = () =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <SignOutDialog close={() => undefined} />
    </QueryClientProvider>,
  );
const isCleared = () => waitFor(() => expect(localStorage.length).toBe(0));

test('where all has been sent, it is done at once and leaves nothing on the device', async () => {
  open();
  await isCleared();
  expect(asked).toEqual(['DELETE /api/session']);
});

test('what is not sent is named, and deleted only after a press', async () => {
  keepPending('larkholt', [queueOf('a')]);
  open();
  await screen.findByText(/Waiting on this device: one change\./);
  expect(asked).toEqual([]);
  fireEvent.click(screen.getByRole('button', { name: 'Delete and sign out' }));
  await isCleared();
});

test.each(['not-signed-in', 'another-person'])(
  'who is not signed in here any more (%s) is signed out',
  async (code) => {
    answer = api(code === 'not-signed-in' ? 401 : 403, code);
    open();
    await isCleared();
  },
);

test('without an answer nothing is deleted, nothing is claimed, and it can be tried again', async () => {
  answer = () => Promise.reject(new TypeError('no network'));
  open();
  await screen.findByText(/We could not confirm that you are signed out/);
  expect(localStorage.length).toBe(1);
  answer = api(204);
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await isCleared();
});
