/** The library page reports what the server does not answer; a site's weather is one object for one document. */
import './patience.ts';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, renderHook, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { siteFields } from '@water-clock/core';
import { useSiteWeather } from '../src/data/api/weather.ts';
import LibraryPage from '../src/office/library/LibraryPage.tsx';
import { PreferencesProvider } from '../src/app/platform/preferences.tsx';

const TOWN = { id: 'marrowby', name: 'Marrowby', region: 'hills', timeZone: 'UTC' };
const CLIMATE = {
  format: 'water-clock-climate',
  version: 1,
  name: 'Marrowby hill',
  source: 'our own gauge',
  latitude: -34,
  months: Array.from({ length: 12 }, () => ({
    highestCelsius: 22,
    lowestCelsius: 12,
    rainMm: 50,
  })),
};
const answers: Record<string, unknown> = {
  '/api/library/climates': [{ id: 'c', version: 1, document: CLIMATE }],
  '/api/weather/towns': [TOWN],
};

beforeEach(() => {
  globalThis.fetch = jest.fn((path: unknown) => {
    const answer = answers[String(path)];
    const body =
      answer === undefined ? { code: 'not-found', message: 'there is no such town' } : answer;
    return Promise.resolve({
      ok: answer !== undefined,
      status: answer === undefined ? 404 : 200,
      json: () => Promise.resolve(body),
      text: () => Promise.resolve(JSON.stringify(body)),
      headers: new Headers({ 'water-clock-api': '1' }),
    });
  }) as unknown as typeof fetch;
});
afterEach(cleanup);

const client = () => new QueryClient({ defaultOptions: { queries: { retry: false } } });

const open = (address: string) =>
  render(
    <QueryClientProvider client={client()}>
      <PreferencesProvider>
        <MemoryRouter initialEntries={[address]}>
          <Routes>
            <Route path="library/:shelf/:entry?" element={<LibraryPage />} />
          </Routes>
        </MemoryRouter>
      </PreferencesProvider>
    </QueryClientProvider>,
  );

test.each(['/library/rules', '/library/rules/some-id'])(
  '%s says that the server gave no answer, and asks again on request',
  async (address) => {
    jest.mocked(globalThis.fetch).mockRejectedValue(new TypeError('offline'));
    open(address);
    fireEvent.click(await screen.findByRole('button', { name: /again/i }));
    expect(document.body.textContent).toMatch(/The library/);
    expect(jest.mocked(globalThis.fetch).mock.calls.length).toBeGreaterThan(1);
  },
);

test.each(['Copy and edit', 'Months', 'Days'])(
  '"%s" of a town that is not there says so, and nothing else happens',
  async (name) => {
    open('/library/climates');
    fireEvent.click(await screen.findByRole('button', { name }));
    expect((await screen.findByRole('alert')).textContent).toContain('there is no such town');
  },
);

test('a document is read first, and changed after a press', async () => {
  open('/library/climates/c');
  expect(await screen.findByText('our own gauge')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Save' })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Edit' }));
  expect(await screen.findByRole('button', { name: 'Save' })).toBeTruthy();
});

test('the weather of a site stays one object while nothing of it changes', async () => {
  const wrapped = client();
  const { result, rerender } = renderHook(
    () => useSiteWeather(siteFields({ name: 'X', timeZone: 'UTC', climateId: 'c' })),
    {
      wrapper: ({ children }: { readonly children: ReactNode }) => (
        <QueryClientProvider client={wrapped}>{children}</QueryClientProvider>
      ),
    },
  );
  await waitFor(() => expect(result.current?.document.name).toBe('Marrowby hill'));
  const before = result.current;
  rerender();
  rerender();
  expect(result.current).toBe(before);
});
