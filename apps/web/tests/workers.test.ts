/** Progress of a worker, and when it counts. */
import { expect, test } from '@jest/globals';
import { seldom } from '../src/data/workers/seldom.ts';
import { withProgress } from '../src/data/workers/started.ts';

test('progress that arrives after the answer is passed over: the answer stands', async () => {
  const heard: (number | string)[] = [];
  let late: (share: number) => void = () => undefined;
  const answer = withProgress(
    (progress) => {
      late = progress;
      progress(0.4);
      return Promise.resolve('the answer');
    },
    (share) => heard.push(share),
  );
  heard.push(await answer);
  late(0.9);
  expect(heard).toEqual([0.4, 'the answer']);
});

test('nor after a call that failed, which fails as it did', async () => {
  const heard: number[] = [];
  let late: (share: number) => void = () => undefined;
  const failed = withProgress(
    (progress) => {
      late = progress;
      return Promise.reject(new Error('no worker'));
    },
    (share) => heard.push(share),
  );
  await expect(failed).rejects.toThrow('no worker');
  late(0.5);
  expect(heard).toEqual([]);
});

test('a listener is told seldom, however often there is news', () => {
  let now = 0;
  const heard: number[] = [];
  const tell = seldom(
    (share: number) => heard.push(share),
    () => now,
  );
  for (let i = 0; i < 1000; i++) {
    now = i;
    tell(i);
  }
  expect(heard).toEqual([120, 240, 360, 480, 600, 720, 840, 960]);
});
