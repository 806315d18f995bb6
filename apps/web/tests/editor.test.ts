/**
 * The editor against a simulated server and network: answers come late or get lost, and two tabs edit at once. Nothing may be lost or
 * overwritten unseen, and in the end both tabs show the saved state.
 */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyRecordChange,
  closingChange,
  rebase,
  EMPTY_SURVEY,
  emptyPlan,
  TIMER_KINDS,
  undoneIn,
  type Closing,
  type Plan,
  type PlanChange,
  type Visit,
} from '@water-clock/core';
import { RefusedError, UnreachableError } from '../src/data/api/request.ts';
import { ShownSnapshot } from '../src/data/editor/shownSnapshot.ts';
import { TimerEditor } from '../src/data/editor/editor.ts';
import { stacksOf } from '../src/data/editor/undoStack.ts';
import { type Queue, type Saved, type SavedSeveral, type Write } from '../src/data/api/timers.ts';

const kind = TIMER_KINDS[1];
if (!kind) throw new Error('no kinds');
const EMPTY = emptyPlan(kind);
const starts = (...times: string[]): PlanChange => ({
  type: 'set-starts',
  program: 'A',
  starts: times,
});
const run = (station: number, seconds: number): PlanChange => ({
  type: 'set-runs',
  program: 'A',
  runs: [{ station, seconds }],
});

/** The server's rules in a few lines: one version at a time, each id once. */
class SimulatedServer {
  saved: Saved = { version: 1, plan: EMPTY, survey: EMPTY_SURVEY };
  readonly done = new Map<string, number>();
  readonly madeOn: (number | undefined)[] = [];
  /** Number of writes and characters in each request of several. */
  readonly requests: { writes: number; letters: number }[] = [];
  /** The last closed visit. */
  closed: Visit | undefined;
  /** The server will refuse the next write. */
  refuses: 'next' | null = null;

  take(write: Write): { version: number } {
    const earlier = this.done.get(write.id);
    if (earlier !== undefined) return { version: earlier };
    if (write.baseVersion !== this.saved.version)
      throw new RefusedError(409, {
        code: 'stale-version',
        message: 'stale',
        current: { ...this.saved, by: 'Jory', at: null },
      });
    const applied = applyRecordChange(this.saved, write.change);
    const { refuses } = this;
    this.refuses = null;
    if (!applied.ok || refuses)
      throw new RefusedError(422, { code: 'not-accepted', message: 'no' });
    const { plan, survey } = applied.value.record;
    this.madeOn.push(write.madeOn);
    if (write.closing) this.closed = this.saved.survey.visit;
    this.saved = { version: this.saved.version + 1, plan, survey };
    this.done.set(write.id, this.saved.version);
    return { version: this.saved.version };
  }

  takeSeveral(writes: readonly Write[]): SavedSeveral {
    this.requests.push({ writes: writes.length, letters: JSON.stringify(writes).length });
    const versions: number[] = [];
    for (const write of writes)
      try {
        versions.push(this.take(write).version);
      } catch (error) {
        if (!(error instanceof RefusedError)) throw error;
        return { versions, refusal: { status: error.status, body: error.body } };
      }
    return { versions, refusal: null };
  }
}

type Fate = 'arrives' | 'lost' | 'answer-lost';

/** Lets everything under way finish, including retries. */
const settle = async () => {
  for (let i = 0; i < 200; i++) await Promise.resolve();
};

let ids = 0;
function openTab(server: SimulatedServer, fate: () => Fate = () => 'arrives') {
  let kept: readonly Queue[] = [];
  const waiting: (() => void)[] = [];
  let ready = Promise.resolve();
  const over = async <T>(take: () => T): Promise<T> => {
    const now = fate();
    await Promise.resolve();
    if (now === 'lost') throw new UnreachableError('lost');
    const answer = take();
    if (now === 'answer-lost') throw new UnreachableError('answer lost');
    return answer;
  };
  const editor = new TimerEditor(server.saved, [], {
    transport: {
      send: (write) => over(() => server.take(write)),
      sendSeveral: (writes) => over(() => server.takeSeveral(writes)),
      load: async () => {
        const answer = server.saved;
        await ready;
        return answer;
      },
    },
    newId: () => `id-${ids++}`,
    merging: () => Promise.resolve({ rebase }),
    keep: (queues) => {
      kept = queues;
    },
    later: (work) => waiting.push(work),
  });
  const retryAll = async () => {
    while (waiting.length > 0) {
      waiting.shift()?.();
      await settle();
    }
  };
  /** Holds the next fetches of the saved state until the returned function is called. */
  const slowly = () => {
    let go = () => {};
    ready = new Promise((resolve) => (go = resolve));
    return () => go();
  };
  return { editor, retryAll, slowly, kept: () => kept };
}

const startsOf = (plan: Plan) => plan.programs[0]?.starts;

test('a draft is shown and not saved; a commit is shown at once and saved', async () => {
  const server = new SimulatedServer();
  const { editor } = openTab(server);
  editor.setDraft(starts('05:00'));
  expect(startsOf(editor.snapshot().plan)).toEqual(['05:00']);
  editor.setDraft(null);
  expect(startsOf(editor.snapshot().plan)).toEqual([]);
  expect(editor.commit(starts('05:00'))).toEqual([]);
  expect(editor.snapshot()).toMatchObject({ status: 'saving', unsaved: 1 });
  await settle();
  expect(editor.snapshot()).toMatchObject({ status: 'saved', unsaved: 0 });
  expect(startsOf(server.saved.plan)).toEqual(['05:00']);
});

test('what core does not accept is said and neither shown nor sent', async () => {
  const server = new SimulatedServer();
  const { editor } = openTab(server);
  expect(editor.commit(run(77, 60))).toMatchObject([{ code: 'unknown-station' }]);
  await settle();
  expect(server.saved.version).toBe(1);
  expect(editor.snapshot()).toMatchObject({ unsaved: 0, canUndo: false });
});

test('undo and redo walk through every step and back, each saved as a change of its own', async () => {
  const server = new SimulatedServer();
  const { editor } = openTab(server);
  const plans: Plan[] = [editor.snapshot().plan];
  for (const change of [starts('05:00'), run(1, 600), run(1, 900), starts()]) {
    editor.commit(change);
    plans.push(editor.snapshot().plan);
  }
  for (const plan of [...plans].reverse().slice(1)) {
    editor.undo();
    expect(editor.snapshot().plan).toEqual(plan);
  }
  expect(editor.snapshot().canUndo).toBe(false);
  for (const plan of plans.slice(1)) {
    editor.redo();
    expect(editor.snapshot().plan).toEqual(plan);
  }
  editor.undo();
  editor.commit(run(2, 60));
  expect(editor.snapshot().canRedo).toBe(false);
  await settle();
  expect(server.saved).toEqual({
    version: 1 + 4 + 4 + 4 + 2,
    plan: editor.snapshot().plan,
    survey: EMPTY_SURVEY,
  });
});

describe('two tabs', () => {
  const conflict = async () => {
    const server = new SimulatedServer();
    const [mine, theirs] = [openTab(server), openTab(server)];
    theirs.editor.commit(starts('04:00'));
    theirs.editor.commit(run(2, 300));
    await settle();
    mine.editor.commit(starts('06:00'));
    await settle();
    return { server, mine: mine.editor };
  };

  test('the slower one is shown both sides, and nothing is overwritten', async () => {
    const { server, mine } = await conflict();
    const found = mine.snapshot().conflict;
    expect(startsOf(found?.base.plan ?? EMPTY)).toEqual([]);
    expect(startsOf(found?.mine.plan ?? EMPTY)).toEqual(['06:00']);
    expect(startsOf(found?.theirs.plan ?? EMPTY)).toEqual(['04:00']);
    expect(startsOf(server.saved.plan)).toEqual(['04:00']);
  });

  test('keeping theirs drops mine; putting mine on top keeps what only they changed', async () => {
    const first = await conflict();
    first.mine.resolve('theirs');
    await settle();
    expect(first.mine.snapshot()).toMatchObject({ conflict: null, plan: first.server.saved.plan });
    expect(startsOf(first.server.saved.plan)).toEqual(['04:00']);

    const second = await conflict();
    second.mine.resolve('mine');
    await settle();
    expect(startsOf(second.server.saved.plan)).toEqual(['06:00']);
    expect(second.server.saved.plan.programs[0]?.runs).toEqual([{ station: 2, seconds: 300 }]);
    expect(second.mine.snapshot().plan).toEqual(second.server.saved.plan);
  });

  test('one that only looks on takes the news over and says so; one that types is left alone', async () => {
    const server = new SimulatedServer();
    const [looking, typing, writer] = [openTab(server), openTab(server), openTab(server)];
    typing.editor.setDraft(starts('07:00'));
    writer.editor.commit(starts('04:00'));
    await settle();
    await looking.editor.noticeVersion(2, 'Jory');
    await typing.editor.noticeVersion(2, 'Jory');
    expect(looking.editor.snapshot()).toMatchObject({ news: { by: 'Jory' }, canUndo: false });
    expect(startsOf(looking.editor.snapshot().plan)).toEqual(['04:00']);
    expect(startsOf(typing.editor.snapshot().plan)).toEqual(['07:00']);
    typing.editor.commit(starts('07:00'));
    await settle();
    expect(typing.editor.snapshot().conflict).not.toBeNull();
  });

  test('what they changed apart is put together without a question, each write under its id', async () => {
    const server = new SimulatedServer();
    const [mine, theirs] = [openTab(server), openTab(server)];
    theirs.editor.commit(starts('04:00'));
    await settle();
    mine.editor.commit(run(1, 600));
    mine.editor.commit({ type: 'note', fields: { school: 'thumb' } });
    const sent = mine.kept().flatMap(({ writes }) => writes.map(({ id }) => id));
    await settle();
    expect(mine.editor.snapshot()).toMatchObject({
      unsaved: 0,
      conflict: null,
      news: { by: 'Jory' },
    });
    expect(server.saved.plan.programs[0]).toMatchObject({
      starts: ['04:00'],
      runs: [{ station: 1, seconds: 600 }],
    });
    expect(server.saved.survey.school).toBe('thumb');
    expect(sent.map((id) => server.done.get(id))).toEqual([3, 4]);
    expect(server.madeOn).toEqual([undefined, 1, 1]);
  });

  test('the end of a visit waits like any change, and takes along what a colleague noted in it', async () => {
    const server = new SimulatedServer();
    const begin = openTab(server);
    begin.editor.commit({ type: 'note', fields: { visit: { began: '2027-06-01T09:00' } } });
    await settle();
    let fate: Fate = 'lost';
    const garage = openTab(server, () => fate);
    const { plan, survey } = garage.editor.snapshot();
    const closed = '2027-06-01T10:00';
    const close = (closing: Closing) =>
      garage.editor.close(closing, closingChange({ plan, survey }, closing));
    expect(close({ closed, undone: [] })).toBe(false);
    expect(close({ closed, undone: undoneIn(plan, survey) })).toBe(true);
    expect(garage.editor.snapshot()).toMatchObject({ survey: { stations: [] }, canUndo: false });
    begin.editor.commit({ type: 'note-visit', fields: { done: 'new head' } });
    await settle();
    fate = 'arrives';
    await garage.retryAll();
    expect(garage.editor.snapshot()).toMatchObject({ unsaved: 0, conflict: null });
    expect(server.saved.survey.visit).toBeUndefined();
    expect(server.closed).toMatchObject({ done: 'new head' });
  });

  test('a write that is refused takes along what builds on it, and nothing else', async () => {
    const server = new SimulatedServer();
    const { editor } = openTab(server);
    server.refuses = 'next';
    editor.commit({ type: 'note', fields: { visit: { began: '2027-06-01T09:00' } } });
    editor.commit({ type: 'note-visit', fields: { done: 'new head' } });
    editor.commit(run(1, 600));
    await settle();
    expect(editor.snapshot().refusal).toBe(
      'Not saved: no. 1 later change that depends on it was not saved either.',
    );
    expect(editor.snapshot()).toMatchObject({ unsaved: 0, plan: server.saved.plan });
    expect(server.saved.plan.programs[0]?.runs).toMatchObject([{ seconds: 600 }]);
    expect(server.saved.survey.visit).toBeUndefined();
  });

  test('many that waited go together: fifty at most, and no more than the office takes in one body', async () => {
    const server = new SimulatedServer();
    let isCut = true;
    const { editor, retryAll } = openTab(server, () => (isCut ? 'lost' : 'arrives'));
    for (let i = 1; i <= 120; i++) editor.commit(run(1, 60 * i));
    const long = 'x'.repeat(1900);
    const noted = (station: number, i: number) =>
      ({ type: 'note-station', station, fields: { note: `${long}${i}` } }) as const;
    for (let i = 0; i < 55; i++)
      editor.commit({ type: 'together', changes: [1, 2, 3, 4].map((n) => noted(n, i)) });
    await settle();
    isCut = false;
    await retryAll();
    await settle();
    expect(editor.snapshot()).toMatchObject({ unsaved: 0, status: 'saved', refusal: null });
    expect(server.saved.version).toBe(1 + 120 + 55);
    expect(server.saved.survey.stations?.map(({ note }) => note)).toEqual(
      [1, 2, 3, 4].map(() => `${long}54`),
    );
    expect(Math.max(...server.requests.map(({ writes }) => writes))).toBe(50);
    expect(Math.max(...server.requests.map(({ letters }) => letters))).toBeLessThan(110_000);
  });

  test('on a network that loses requests and answers, every change is saved once or asked about', async () => {
    const step = fc.record({
      tab: fc.integer({ min: 0, max: 1 }),
      station: fc.integer({ min: 1, max: 4 }),
      seconds: fc.integer({ min: 1, max: 3600 }),
      choice: fc.constantFrom('mine' as const, 'theirs' as const),
      fates: fc.array(fc.constantFrom<Fate>('arrives', 'lost', 'answer-lost'), { maxLength: 3 }),
    });
    let asked = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 12 }), async (steps) => {
        const server = new SimulatedServer();
        let fates: Fate[] = [];
        const tabs = [0, 1].map(() => openTab(server, () => fates.shift() ?? 'arrives'));
        for (const { tab: index, station, seconds, choice, fates: next } of steps) {
          fates = [...next];
          const tab = tabs[index];
          if (!tab) throw new Error('no tab');
          const before = server.saved.version;
          tab.editor.commit({
            type: 'together',
            changes: [
              run(station, seconds),
              { type: 'note-station', station, fields: { slopePercent: seconds % 100 } },
            ],
          });
          await settle();
          await tab.retryAll();
          const conflicted = tab.editor.snapshot().conflict !== null;
          // Saved once, or asked about and not saved at all.
          expect(server.saved.version - before).toBe(conflicted ? 0 : 1);
          if (conflicted) {
            asked++;
            tab.editor.resolve(choice);
            await settle();
            await tab.retryAll();
          }
          const { plan, survey } = server.saved;
          expect(tab.editor.snapshot()).toMatchObject({ unsaved: 0, plan, survey });
          expect(tab.kept()).toEqual([]);
        }
        for (const { editor } of tabs) {
          await editor.noticeVersion(server.saved.version, null);
          expect(editor.snapshot().plan).toEqual(server.saved.plan);
        }
      }),
      { seed: 2, numRuns: 150 },
    );
    expect(asked).toBeGreaterThan(50);
  });
});

test('a write that had arrived before a reload does not hide what others saved since', async () => {
  const server = new SimulatedServer();
  const before = openTab(server, () => 'answer-lost');
  before.editor.commit(starts('05:00'));
  await settle();
  const other = openTab(server);
  other.editor.commit(starts('06:00'));
  await settle();
  const after = openTab(server);
  before.kept().forEach((queue) => after.editor.resume(queue));
  await settle();
  expect(after.editor.snapshot()).toMatchObject({ plan: server.saved.plan, conflict: null });
  expect(startsOf(after.editor.snapshot().plan)).toEqual(['06:00']);
  // And the next change is based on the saved state.
  after.editor.commit(starts('07:00'));
  await settle();
  expect(startsOf(server.saved.plan)).toEqual(['07:00']);
});

test('what is changed right after a reload is saved, while what was left over is still on its way', async () => {
  for (const arrived of [true, false]) {
    const server = new SimulatedServer();
    const before = openTab(server, () => (arrived ? 'answer-lost' : 'lost'));
    before.editor.commit(starts('05:00'));
    await settle();
    const after = openTab(server);
    before.kept().forEach((queue) => after.editor.resume(queue));
    after.editor.commit(run(1, 600));
    await settle();
    expect(after.editor.snapshot()).toMatchObject({ status: 'saved', unsaved: 0, conflict: null });
    expect(server.saved.version).toBe(3);
    expect(after.editor.snapshot().plan).toEqual(server.saved.plan);
    expect(server.saved.plan.programs[0]).toMatchObject({
      starts: ['05:00'],
      runs: [{ station: 1, seconds: 600 }],
    });
  }
});

test('what is changed while the saved state is fetched is sent, too', async () => {
  const server = new SimulatedServer();
  const { editor, slowly } = openTab(server);
  const fetched = slowly();
  editor.resume({
    base: server.saved,
    writes: [{ id: 'left', baseVersion: 1, way: 'do', change: starts('05:00'), at: '' }],
  });
  await settle();
  editor.commit(run(1, 600));
  fetched();
  await settle();
  expect(editor.snapshot()).toMatchObject({ status: 'saved', unsaved: 0, conflict: null });
  expect(server.saved.plan.programs[0]?.runs).toEqual([{ station: 1, seconds: 600 }]);

  // The same while a refused change is reverted.
  const fetchedAgain = slowly();
  server.refuses = 'next';
  editor.commit(starts('06:00'));
  await settle();
  editor.commit(run(2, 300));
  fetchedAgain();
  await settle();
  expect(editor.snapshot()).toMatchObject({ status: 'saved', unsaved: 0, conflict: null });
  expect(editor.snapshot().refusal).toMatch(/Not saved/);
  expect(server.saved.plan.programs[0]).toMatchObject({
    starts: ['05:00'],
    runs: [
      { station: 1, seconds: 600 },
      { station: 2, seconds: 300 },
    ],
  });
});

test.each<[string, (write: Write) => unknown]>([
  ['a limit', () => new RefusedError(429, { code: 'too-many-tries', message: 'wait' })],
  ['no answer', () => new UnreachableError('nothing')],
  ['the version of something else', ({ baseVersion }) => ({ version: baseVersion + 7 })],
  ['no version', () => ({})],
])('a write that gets %s is kept and sent again under its id', async (_what, first) => {
  const server = new SimulatedServer();
  const sent: Write[] = [];
  const waiting: (() => void)[] = [];
  let kept: readonly Queue[] = [];
  const editor = new TimerEditor(server.saved, [], {
    transport: {
      send: (write) => {
        sent.push(write);
        if (sent.length > 1) return Promise.resolve(server.take(write));
        const answer = first(write);
        // The cast is deliberate: an answer is not always what it should be.
        return answer instanceof Error
          ? Promise.reject(answer)
          : Promise.resolve(answer as { version: number });
      },
      load: () => Promise.resolve(server.saved),
    },
    newId: () => `only-${++ids}`,
    merging: () => Promise.resolve({ rebase }),
    keep: (queues) => (kept = queues),
    later: (work) => waiting.push(work),
  });
  editor.commit(starts('05:00'));
  await settle();
  expect(editor.snapshot()).toMatchObject({ status: 'offline', unsaved: 1, version: 1 });
  expect(kept).toHaveLength(1);
  waiting.forEach((work) => work());
  await settle();
  expect(editor.snapshot()).toMatchObject({ status: 'saved', unsaved: 0, version: 2 });
  expect(new Set(sent.map(({ id }) => id)).size).toBe(1);
});

test('the record of changes tells what can be undone and redone after a reload', () => {
  const step = (minute: number) => ({ change: starts(`05:0${minute}`), inverse: starts() });
  const back = (minute: number) => ({ change: starts(), inverse: starts(`05:0${minute}`) });
  const history = [
    { way: 'do', ...step(1) },
    { way: 'do', ...step(2) },
    { way: 'undo', ...back(2) },
    { way: 'undo', ...back(1) },
    { way: 'redo', ...step(1) },
  ] as const;
  expect(stacksOf(history)).toEqual({ undo: [step(1)], redo: [step(2)] });
  expect(stacksOf([...history, { way: 'do', ...step(3) }])).toEqual({
    undo: [step(1), step(3)],
    redo: [],
  });
  // A record of changes that starts in the middle must not break it.
  expect(stacksOf([{ way: 'undo', ...back(4) }])).toEqual({ undo: [], redo: [step(4)] });
});

test('what a reload interrupts is sent again, whether it had arrived or not', async () => {
  for (const fate of ['lost', 'answer-lost'] as const) {
    const server = new SimulatedServer();
    const before = openTab(server, () => fate);
    before.editor.commit(starts('05:00'));
    await settle();
    const left = before.kept();
    expect(left).toHaveLength(1);
    const after = openTab(server);
    left.forEach((queue) => after.editor.resume(queue));
    await settle();
    expect(server.saved.version).toBe(2);
    expect(after.editor.snapshot()).toMatchObject({ unsaved: 0, conflict: null });
    expect(startsOf(after.editor.snapshot().plan)).toEqual(['05:00']);
  }
});

test('what is typed waits for its answer, what is made shows at once, and a slow answer is not waited for', async () => {
  const { editor } = openTab(new SimulatedServer());
  const state = new ShownSnapshot(editor);
  const shown: number[] = [];
  const minutes = () => (state.snapshot().plan.programs[0]?.runs[0]?.seconds ?? 0) / 60;
  const end = state.subscribe(() => shown.push(minutes()));
  editor.setDraft(run(1, 60));
  expect(shown).toEqual([]);
  state.catchUp();
  expect(shown).toEqual([1]);
  editor.setDraft(run(1, 120));
  editor.commit(run(1, 180));
  expect(shown.at(-1)).toBe(3);
  await settle();
  editor.setDraft(run(1, 240));
  expect(minutes()).toBe(3);
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(shown.at(-1)).toBe(4);
  end();
  editor.setDraft(run(1, 300));
  state.catchUp();
  expect(shown.at(-1)).toBe(4);
});
