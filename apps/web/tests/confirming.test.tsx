/** A request that needs the password again waits for it, and is sent once more with the same body. */
import './patience.ts';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { request } from '../src/data/api/request.ts';
import { ConfirmWhenAsked } from '../src/office/account/ConfirmWhenAsked.tsx';

const PASSWORD = 'the right one';
const INVITATION = { id: '1f0c0f7a-0000-4000-8000-000000000001', email: 'nell@example.test' };

const asked: string[] = [];
let isConfirmed = false;

/** The server: refuses until the password was given. */
function answerTo(path: string, body: string): [number, object?] {
  if (path !== '/api/session/confirm')
    return isConfirmed ? [200, { sent: true }] : [403, { code: 'confirm-needed', message: 'no' }];
  isConfirmed = body.includes(PASSWORD);
  const fault = { path: 'password', message: 'this is not your current password' };
  return isConfirmed ? [204] : [400, { code: 'bad-value', message: 'no', faults: [fault] }];
}

beforeEach(() => {
  asked.length = 0;
  isConfirmed = false;
  Object.assign(globalThis, {
    fetch: (path: string, { body }: { body: string }) => {
      asked.push(`${path} ${body}`);
      const [status, json] = answerTo(path, body);
      return Promise.resolve({
        ok: status < 300,
        status,
        headers: new Headers({ 'water-clock-api': '1' }),
        json: () => Promise.resolve(json),
      });
    },
  });
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ConfirmWhenAsked />
    </QueryClientProvider>,
  );
});
afterEach(cleanup);

const invite = () => request<object>('POST', '/api/invitations', INVITATION);
const INVITED = `/api/invitations ${JSON.stringify(INVITATION)}`;
const field = async () => screen.findByLabelText('Your password');
const isClosed = async () =>
  waitFor(() => expect(screen.queryByLabelText('Your password')).toBeNull());

async function give(password: string) {
  fireEvent.change(await field(), { target: { value: password } });
  fireEvent.click(screen.getByRole('button', { name: 'Confirm' }));
}

test('a wrong password is named; the right one lets the same request through, once', async () => {
  const answer = invite();
  await give('a wrong one');
  await screen.findByText('this is not your current password');
  expect(asked.filter((one) => one === INVITED)).toHaveLength(1);
  await give(PASSWORD);
  await isClosed();
  expect(await answer).toEqual({ sent: true });
  expect(asked.filter((one) => one === INVITED)).toHaveLength(2);
});

test('cancelled, it stays refused, and nothing more is sent', async () => {
  const answer = invite();
  await field();
  fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  await expect(answer).rejects.toMatchObject({ code: 'confirm-needed' });
  expect(asked).toEqual([INVITED]);
});

test('several requests at once ask only once', async () => {
  const answers = Promise.all([invite(), invite()]);
  await give(PASSWORD);
  await isClosed();
  expect(await answers).toEqual([{ sent: true }, { sent: true }]);
  expect(asked.filter((one) => one.startsWith('/api/session/confirm'))).toHaveLength(1);
});
