/**
 * One seeded run of the simulated network: several devices, people and servers; random edits, loss, repetition, delay, restarts, clocks
 * days off, hours and weeks offline. Then everything is connected, and what people see, what the database has and what was entered are
 * compared.
 */
import type { DataSource } from 'typeorm';
import {
  closingChange,
  undoneIn,
  type Closing,
  type RecordChange,
  type Side,
} from '@water-clock/core';
import type { TimerEditor } from '../../apps/web/src/data/editor/editor.ts';
import { diceOf, randomEdit, type Dice } from '../../packages/core/tests/randomEdits.ts';
import { Device, wordsIn, type Ask } from './device.ts';

const DAY_MS = 86_400_000;
const EVENTS = 60;

export interface Office {
  /** Servers, by person. */
  readonly people: readonly { readonly name: string; readonly servers: readonly Ask[] }[];
  readonly database: DataSource;
  /** A new empty timer. */
  readonly newTimer: () => Promise<string>;
}

export interface Told {
  readonly edits: number;
  readonly questions: number;
  readonly merged: number;
  /** What is wrong; empty if nothing is. */
  readonly wrong: readonly string[];
}

let words = 0;

/** A fact with a unique word, or any other edit. */
function editOf(editor: TimerEditor, dice: Dice): { change: RecordChange; word: string | null } {
  const { plan, survey } = editor.snapshot();
  const word = `word-${++words}`;
  const station = plan.stations[dice(plan.stations.length)]?.number;
  const of: (RecordChange | null)[] = [
    station === undefined ? null : { type: 'note-station', station, fields: { note: word } },
    station === undefined ? null : { type: 'set-station', station, fields: { name: word } },
    { type: 'note', fields: { device: { ...survey.device, note: word } } },
    { type: 'note', fields: { device: { ...survey.device, transformer: word } } },
    survey.visit ? { type: 'note-visit', fields: { done: word } } : null,
    survey.visit
      ? {
          type: 'note-visit',
          fields: {
            tests: [
              ...(survey.visit.tests ?? []).filter((one) => one.station !== 1 + (words % 3)),
              { station: 1 + (words % 3), reading: word },
            ],
          },
        }
      : null,
  ];
  const change = dice(3) === 0 ? null : of[dice(of.length)];
  return change ? { change, word } : { change: randomEdit({ plan, survey }, dice), word: null };
}

const shownBy = (editor: TimerEditor) => {
  const { plan, survey } = editor.snapshot();
  return wordsIn([plan, survey]);
};

const minus = (a: ReadonlySet<string>, ...others: readonly ReadonlySet<string>[]): string[] =>
  [...a].filter((one) => !others.some((other) => other.has(one)));

function end(editor: TimerEditor, closing: Closing): void {
  const { plan, survey } = editor.snapshot();
  editor.close(closing, closingChange({ plan, survey }, closing));
}

/** Someone does something at one timer on one device. */
function work(device: Device, editor: TimerEditor, dice: Dice): 'edit' | 'question' {
  const before = shownBy(editor);
  if (editor.snapshot().refusal) editor.dismiss();
  const { conflict } = editor.snapshot();
  if (conflict) {
    const sides = new Map<string, Side>(
      conflict.open.map(({ at }) => [at, dice(2) ? 'mine' : 'theirs']),
    );
    for (const { at, mine } of conflict.open)
      if (sides.get(at) === 'theirs') wordsIn(mine).forEach((word) => device.letGo.add(word));
    // A fact that ends as it began is not asked about.
    editor.resolve(sides);
    return 'question';
  }
  const { plan, survey } = editor.snapshot();
  if (survey.visit && dice(6) === 0)
    end(editor, { closed: '2027-06-20T12:00', undone: undoneIn(plan, survey) });
  else if (dice(8) === 0) editor.undo();
  else {
    const { change, word } = editOf(editor, dice);
    if (editor.commit(change).length === 0 && word !== null) device.entered.add(word);
  }
  for (const word of minus(before, shownBy(editor))) device.letGo.add(word);
  return 'edit';
}

/** A JSON value as text, whatever the order of its fields. */
const ordered = (value: unknown): string =>
  JSON.stringify(value, (_, one: unknown) =>
    typeof one === 'object' && one !== null && !Array.isArray(one)
      ? Object.fromEntries(Object.entries(one).sort(([a], [b]) => (a < b ? -1 : 1)))
      : one,
  );

interface Row {
  readonly id: string;
  readonly version: number;
  readonly change: RecordChange | null;
  readonly inverse: RecordChange | null;
  readonly made_on: number | null;
}

/** @param restart restarts a server in the middle of it */
export async function simulate(
  seed: number,
  office: Office,
  restart?: () => Promise<void>,
): Promise<Told> {
  const dice = diceOf(seed);
  const timers = await Promise.all(Array.from({ length: 1 + dice(2) }, () => office.newTimer()));
  const devices = Array.from({ length: 2 + dice(3) }, (_, i) => {
    const person = office.people[i % office.people.length];
    if (!person) throw new Error('nobody');
    const off = [0, 3_600_000, -2 * DAY_MS, 30 * DAY_MS][dice(4)] ?? 0;
    return new Device(person.name, person.servers, dice, off);
  });
  for (const device of devices) {
    device.isCalm = true;
    for (const id of timers) await device.open(id);
    device.isCalm = false;
  }
  const told = { edits: 0, questions: 0 };
  const one = <T>(list: readonly T[]): T | undefined => list[dice(list.length)];
  let restarted: Promise<void> | undefined;
  for (let event = 0; event < EVENTS; event++) {
    if (event === EVENTS / 3) restarted = restart?.();
    const device = one(devices);
    const editor = device?.editors.get(one(timers) ?? '');
    if (!device) continue;
    const what = dice(20);
    if (what < 11 && editor) told[work(device, editor, dice) === 'edit' ? 'edits' : 'questions']++;
    // One that went offline may stay so until the end; only the number of edits matters, not the time.
    else if (what < 13) device.isOnline = dice(3) === 0;
    else if (what < 14) await device.restart();
    else if (what < 16) await device.hearOfNews();
    if (dice(3) > 0) await device.tick();
  }

  await restarted;
  for (const device of devices) Object.assign(device, { isOnline: true, isCalm: true });
  const isOpen = () =>
    devices.some((device) =>
      [...device.editors.values()].some((editor) => {
        const { unsaved, conflict } = editor.snapshot();
        return unsaved > 0 || conflict !== null;
      }),
    );
  let rounds = 0;
  for (; rounds < 200 && (isOpen() || rounds < 3); rounds++)
    for (const device of devices) {
      await device.tick();
      for (const editor of device.editors.values())
        if (editor.snapshot().conflict) {
          told.questions++;
          work(device, editor, dice);
        }
      await device.quiet();
      await device.hearOfNews();
    }

  for (const device of devices) await device.hearOfNews();

  const wrong: string[] = [];
  if (isOpen()) wrong.push('something still waits after 200 rounds');
  let merged = 0;
  const logged = new Set<string>();
  for (const timerId of timers) {
    const [saved]: { version: number; plan: unknown; survey: unknown }[] =
      await office.database.query('select version, plan, survey from timers where id = $1', [
        timerId,
      ]);
    const rows: Row[] = await office.database.query(
      'select id, version, change, inverse, made_on from changes where subject_id = $1 order by version',
      [timerId],
    );
    if (rows.some(({ version }, i) => version !== i + 2) || saved?.version !== rows.length + 1)
      wrong.push(`timer ${timerId}: versions are not in a row`);
    merged += rows.filter(({ made_on: madeOn }) => madeOn !== null).length;
    for (const [i, device] of devices.entries()) {
      const editor = device.editors.get(timerId);
      const { plan, survey } = editor?.snapshot() ?? {};
      if (ordered({ plan, survey }) !== ordered({ plan: saved?.plan, survey: saved?.survey }))
        wrong.push(
          `device ${i} of ${device.person} shows something else than is saved (${editor?.snapshot().status}, version ${editor?.snapshot().version} of ${saved?.version})`,
        );
    }
    for (const word of wordsIn(rows.map(({ change }) => change))) logged.add(word);
    for (const { id, change, inverse } of rows) {
      const device = devices.find(({ made }) => made.has(id));
      if (!device) wrong.push(`write ${id} is of nobody`);
      else if (change)
        for (const word of minus(wordsIn(inverse), wordsIn(change), device.seen))
          wrong.push(`${word} was written over by a device that never showed it`);
    }
  }
  for (const [i, device] of devices.entries())
    for (const word of minus(device.entered, logged, device.letGo))
      wrong.push(`${word} was entered on device ${i} and is nowhere`);
  return { ...told, merged, wrong };
}
