/** Photos not uploaded yet: shown from the device, with their memory released. */
import './patience.ts';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import { PhotoRow } from '../src/shared/photos/PhotoRow.tsx';

const made: string[] = [];
const released: string[] = [];
beforeEach(() => {
  made.length = 0;
  released.length = 0;
  URL.createObjectURL = () => {
    made.push(`blob:${made.length + 1}`);
    return made.at(-1) ?? '';
  };
  URL.revokeObjectURL = (address) => void released.push(address);
  const outbox = {
    match: (path: string) =>
      Promise.resolve(path.endsWith('/waiting') ? { blob: () => Promise.resolve({}) } : undefined),
    keys: () => Promise.resolve([]),
  };
  Object.assign(globalThis, { caches: { open: () => Promise.resolve(outbox) } });
  jest.useFakeTimers();
});
afterEach(() => {
  cleanup();
  jest.useRealTimers();
});

const settle = () => act(async () => void (await jest.advanceTimersByTimeAsync(0)));

test('each address that shows a waiting photo is released when the photo goes', async () => {
  const page = render(<PhotoRow label="Photos" photos={['waiting', 'arrived']} />);
  await settle();
  const sources = screen
    .getAllByRole<HTMLImageElement>('img')
    .map((image) => image.getAttribute('src'));
  expect(sources).toEqual(['blob:1', '/api/photos/arrived']);
  page.rerender(<PhotoRow label="Photos" photos={['arrived']} />);
  await settle();
  expect(released).toEqual(made);
  page.unmount();
  expect(released).toEqual(made);
});

test('a photo that goes before it was found makes no address at all', async () => {
  render(<PhotoRow label="Photos" photos={['waiting']} />).unmount();
  await settle();
  expect(made).toEqual([]);
});
