/** Merging two people's versions of a timer: nothing lost, nothing asked needlessly, and the writes lead to the merged result. */
import fs from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import {
  applyRecordChange,
  changeBetween,
  closeVisit,
  closingChange,
  CLOSING_AT,
  EMPTY_SURVEY,
  emptyPlan,
  factAt,
  mergeRecords,
  NO_CHOICES,
  readPlan,
  readSurvey,
  rebase,
  sameRecord,
  undoneIn,
  TIMER_KINDS,
  whoChanged,
  type RecordChange,
  type Side,
  type TimerRecord,
  type TimerWrite,
} from '@water-clock/core';
import { RECORD, type Part } from '../src/merge/facts.ts';
import { cases, enough } from './cases.ts';
import { diceOf, randomEdit, type Dice } from './randomEdits.ts';

const kind = TIMER_KINDS.find(({ programCount }) => programCount >= 3);
if (!kind) throw new Error('no kind has three programs');
const stations = [1, 2, 3, 4, 5, 6, 7].map((number) => ({ number, name: `Bed ${number}` }));
const EMPTY: TimerRecord = { plan: { ...emptyPlan(kind), stations }, survey: EMPTY_SURVEY };

function made(record: TimerRecord, ...changes: readonly RecordChange[]): TimerRecord {
  return changes.reduce((before, change) => {
    const applied = applyRecordChange(before, change);
    if (!applied.ok) throw new Error(JSON.stringify(applied.faults));
    return applied.value.record;
  }, record);
}
const starts = (...times: string[]): RecordChange => ({
  ...{ type: 'set-starts', program: 'A', starts: times },
});
const run = (station: number, seconds: number | null): RecordChange => ({
  ...{ type: 'set-runs', program: 'A', runs: [{ station, seconds }] },
});
const visit = (fields: object): RecordChange => ({ type: 'note-visit', fields });
const BEGIN: RecordChange = { type: 'note', fields: { visit: { began: '2027-06-01T09:00' } } };
const RUNS = cases(200);
let ids = 0;
const writes = (...changes: readonly RecordChange[]): TimerWrite[] =>
  changes.map((change) => ({ id: `write-${++ids}`, change }));
const ats = ({ open }: { open: readonly { at: string }[] }) => open.map(({ at }) => at);

describe('facts that only one side changed', () => {
  test.each<[string, RecordChange[], RecordChange[], RecordChange[]]>([
    ['starts and runs', [], [starts('05:00')], [run(2, 600)]],
    ['runs of two stations', [], [run(1, 300)], [run(2, 600)]],
    [
      'ticks of one card',
      [BEGIN, visit({ keyIn: { scope: 'everything', ticked: ['a'] } })],
      [visit({ keyIn: { scope: 'everything', ticked: ['a', 'b'] } })],
      [visit({ keyIn: { scope: 'everything', ticked: ['a', 'c'] } })],
    ],
    [
      'tests of two stations',
      [BEGIN],
      [visit({ tests: [{ station: 1, result: 'waters' }] })],
      [visit({ tests: [{ station: 2, result: 'weak' }] })],
    ],
    [
      'two fields of one device',
      [],
      [{ type: 'note', fields: { device: { note: 'by the door' } } }],
      [{ type: 'note', fields: { device: { power: 'mains' } } }],
    ],
    [
      'two faults of one station',
      [],
      [
        {
          type: 'note-station',
          station: 1,
          fields: { faults: [{ fault: 'leak', severity: 'soon' }] },
        },
      ],
      [
        {
          type: 'note-station',
          station: 1,
          fields: { faults: [{ fault: 'pooling', severity: 'soon' }] },
        },
      ],
    ],
    [
      'a program that one adds',
      [],
      [{ type: 'add-program', program: { letter: 'B', starts: [], runs: [], days: null } }],
      [starts('04:00')],
    ],
  ])('%s merge by themselves, whichever came first', (_what, before, mine, theirs) => {
    const base = made({ ...EMPTY, plan: withA(EMPTY) }, ...before);
    const both = mergeRecords(base, made(base, ...mine), made(base, ...theirs));
    expect(both.open).toEqual([]);
    const other = mergeRecords(base, made(base, ...theirs), made(base, ...mine));
    expect(other.open).toEqual([]);
    for (const change of [...mine, ...theirs]) {
      // Each side's change is in it: merging it again changes nothing.
      const again = mergeRecords(base, made(base, change), both.record);
      expect(again).toEqual({ record: both.record, open: [] });
    }
  });
});

function withA({ plan }: TimerRecord) {
  return plan.programs.some(({ letter }) => letter === 'A')
    ? plan
    : { ...plan, programs: [{ letter: 'A', starts: [], runs: [], days: null }] };
}
const START: TimerRecord = { ...EMPTY, plan: withA(EMPTY) };

describe('a fact that both changed', () => {
  test('is asked about with both sides; until then theirs stands, and nothing else is asked', () => {
    const base = made(START, starts('03:00'));
    const [mine, theirs] = [
      made(base, starts('05:00'), run(1, 60)),
      made(base, starts('06:00'), run(2, 60)),
    ];
    const { record, open } = mergeRecords(base, mine, theirs);
    expect(open).toEqual([
      { at: 'plan/programs/A/starts', base: ['03:00'], mine: ['05:00'], theirs: ['06:00'] },
    ]);
    expect(factAt(record, 'plan/programs/A/starts')).toEqual(['06:00']);
    expect(factAt(record, 'plan/programs/A/runs/1')).toEqual({ station: 1, seconds: 60 });
    const chosen = mergeRecords(base, mine, theirs, new Map([['plan/programs/A/starts', 'mine']]));
    expect(chosen.open).toEqual([]);
    expect(factAt(chosen.record, 'plan/programs/A/starts')).toEqual(['05:00']);
    expect(factAt(chosen.record, 'plan/programs/A/runs/2')).toEqual({ station: 2, seconds: 60 });
  });

  test('the same value on both sides is no question', () => {
    expect(mergeRecords(START, made(START, starts('05:00')), made(START, starts('05:00')))).toEqual(
      {
        record: made(START, starts('05:00')),
        open: [],
      },
    );
  });

  test('taken out on one side and changed on the other', () => {
    const base = made(START, starts('03:00'));
    const removed = made(base, { type: 'remove-program', program: 'A' });
    expect(ats(mergeRecords(base, made(base, starts('05:00')), removed))).toEqual([
      'plan/programs/A',
    ]);
  });

  test('facts that belong together are one: a clock reading, a piece and its rest', () => {
    const read = (clockShown: string, clockReally: string): RecordChange => ({
      ...{ type: 'note', fields: { device: { clockShown, clockReally } } },
    });
    const [a, b] = [
      read('2027-06-01T09:00', '2027-06-01T09:04'),
      read('2027-06-01T09:10', '2027-06-01T09:14'),
    ];
    expect(ats(mergeRecords(START, made(START, a), made(START, b)))).toEqual([
      'survey/device/clockShown',
    ]);
  });

  test('what does not fit together is one question about the plan, and sound whichever side is chosen', () => {
    const base = START;
    const mine = made(base, run(3, 600));
    const theirs = made(base, { type: 'remove-station', station: 3 }, starts('04:00'));
    const { record, open } = mergeRecords(base, mine, theirs);
    expect(ats({ open })).toEqual(['plan']);
    expect(record).toEqual(theirs);
    const kept = mergeRecords(base, mine, theirs, new Map([['plan', 'mine' as const]]));
    expect(kept).toEqual({ record: mine, open: [] });
  });
});

describe('writes put on what somebody else saved', () => {
  test('keep their order and ids; what is saved already is idle', () => {
    const queue = writes(starts('05:00'), run(1, 300), run(2, 600));
    const theirs = made(START, run(1, 300), { type: 'note', fields: { school: 'thumb' } });
    const rebased = rebase(START, queue, theirs, NO_CHOICES);
    expect(rebased.open).toEqual([]);
    expect(rebased.writes).toEqual([queue[0], queue[2]]);
    expect(rebased.idle).toEqual([queue[1]?.id]);
  });

  test('a change that names a whole does not take back what others changed in it', () => {
    const base = made(START, { type: 'note', fields: { device: { power: 'mains' } } });
    const [write] = writes({ type: 'note', fields: { device: { power: 'mains', note: 'cold' } } });
    const theirs = made(base, {
      ...{ type: 'note', fields: { device: { power: 'mains', batteryKind: '9 V' } } },
    });
    const { record, writes: left } = rebase(base, write ? [write] : [], theirs, NO_CHOICES);
    expect(record.survey.device).toEqual({ power: 'mains', batteryKind: '9 V', note: 'cold' });
    expect(made(theirs, ...left.map(({ change }) => change))).toEqual(record);
  });

  test('there and back again on the way is no question, and theirs stays', () => {
    const base = made(START, starts('03:00'));
    const queue = writes(starts('05:00'), run(1, 60), starts('03:00'));
    const theirs = made(base, starts('06:00'));
    const { open, record, writes: left } = rebase(base, queue, theirs, NO_CHOICES);
    expect(open).toEqual([]);
    expect(factAt(record, 'plan/programs/A/starts')).toEqual(['06:00']);
    expect(sameRecord(made(theirs, ...left.map(({ change }) => change)), record)).toBe(true);
  });

  const closed = (record: TimerRecord) => {
    const closing = {
      closed: '2027-06-01T10:00',
      undone: undoneIn(record.plan, record.survey),
    };
    const change = closingChange(record, closing);
    if (!change) throw new Error('cannot be closed');
    return { id: 'end', change, closing };
  };
  test('the end of a visit takes along what a colleague noted in it', () => {
    const base = made(START, BEGIN);
    const theirs = made(base, visit({ done: 'new head' }));
    const { open, writes: left, record } = rebase(base, [closed(base)], theirs, NO_CHOICES);
    expect(open).toEqual([]);
    expect(left.map(({ id }) => id)).toEqual(['end']);
    expect(record.survey.visit).toBeUndefined();
  });

  test('the end of a visit asks where more is undone by then', () => {
    const base = made(START, BEGIN);
    const theirs = made(base, { type: 'set-settings', settings: { mode: 'off' } });
    const asked = rebase(base, [closed(base)], theirs, NO_CHOICES);
    expect(asked.open).toMatchObject([{ at: CLOSING_AT, theirs: [{ what: 'switched' }] }]);
    const answer = (side: Side) =>
      rebase(base, [closed(base)], theirs, new Map([[CLOSING_AT, side]]));
    const [end] = answer('mine').writes;
    expect(end?.closing?.undone).toContainEqual({ what: 'switched', switched: 'off' });
    expect(answer('theirs')).toMatchObject({ idle: ['end'], writes: [], open: [] });
  });

  test('what was frozen as left stays what is in the box, also where the office changed settings meanwhile', () => {
    const frozen = { at: '2027-06-01T09:30', plan: START.plan };
    const base = made(START, BEGIN, visit({ asLeft: frozen }));
    const theirs = made(base, starts('04:00'));
    const { open, writes: left } = rebase(base, [closed(base)], theirs, NO_CHOICES);
    expect(open).toEqual([]);
    const [end] = left;
    expect(end?.closing).toMatchObject({ leftAsFrozen: true });
    expect(end?.closing?.undone).toContainEqual({ what: 'not-keyed', lines: 1 });
    const { closed: at, undone = [] } = end?.closing ?? {};
    const entry = closeVisit(theirs.plan, theirs.survey, at ?? '', undone, [], true);
    expect(entry?.visit.asLeft).toEqual(frozen);
    expect(entry?.survey.visit).toBeUndefined();
    // If a start is asked about, whether the visit can be closed follows from the answer, and is not asked as well.
    const mine = writes(starts('05:00'));
    const asked = rebase(base, [...mine, closed(made(base, starts('05:00')))], theirs, NO_CHOICES);
    expect(ats(asked)).toEqual(['plan/programs/A/starts']);
  });

  test('who changed a fact last is told, not who saved last', () => {
    const since = [
      { by: 'Ana', at: '2027-06-01T08:00:00Z', change: starts('06:00') },
      { by: 'Jory', at: '2027-06-01T09:00:00Z', change: run(1, 60) },
    ];
    expect(whoChanged(START, since, 'plan/programs/A/starts')?.by).toBe('Ana');
    expect(whoChanged(START, since, 'plan/programs/A/runs/1')?.by).toBe('Jory');
  });
});

describe(`${RUNS} random pairs of sides`, () => {
  const some = (record: TimerRecord, dice: Dice, most: number): RecordChange[] => {
    const changes: RecordChange[] = [];
    let now = record;
    for (let i = dice(most + 1); i > 0; i--) {
      const change = randomEdit(now, dice);
      now = made(now, change);
      changes.push(change);
    }
    return changes;
  };

  /** Which of two added entries comes first follows from the side. */
  const unordered = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map((one) => JSON.stringify(unordered(one))).sort()
      : typeof value === 'object' && value !== null
        ? Object.fromEntries(
            Object.entries(value)
              .sort(([a], [b]) => (a < b ? -1 : 1))
              .map(([key, one]) => [key, unordered(one)]),
          )
        : value;

  test('sound, the same from both sides, and reached by the writes; a question is only where both changed', () => {
    let asked = 0;
    for (let seed = 1; seed <= RUNS; seed++) {
      const dice = diceOf(seed);
      const base = made(START, ...some(START, dice, 8));
      const [a, b] = [some(base, dice, 6), some(base, dice, 6)];
      const [mine, theirs] = [made(base, ...a), made(base, ...b)];
      const told = `seed ${seed}`;
      const { record, open } = mergeRecords(base, mine, theirs);
      expect([told, readPlan(record.plan).ok, readSurvey(record.survey).ok]).toEqual([
        told,
        true,
        true,
      ]);
      for (const clash of open) {
        expect([told, clash.at, clash.mine]).not.toEqual([told, clash.at, clash.theirs]);
        expect([told, clash.at, clash.mine]).not.toEqual([told, clash.at, clash.base]);
        expect([told, clash.at, clash.theirs]).not.toEqual([told, clash.at, clash.base]);
      }
      const turned = mergeRecords(base, theirs, mine);
      // Until a question is answered theirs applies, and whether it fits the rest follows from the side.
      if (![...ats({ open }), ...ats(turned)].includes('plan'))
        expect([told, ats(turned).sort()]).toEqual([told, ats({ open }).sort()]);
      if (open.length === 0)
        expect([told, unordered(turned.record)]).toEqual([told, unordered(record)]);
      else asked++;
      for (const side of ['mine', 'theirs'] as const) {
        const queue = writes(...a);
        const choices = new Map<string, Side>();
        let rebased = rebase(base, queue, theirs, choices);
        for (let times = 0; rebased.open.length > 0; times++) {
          expect([told, times < 4]).toEqual([told, true]);
          for (const { at } of rebased.open) choices.set(at, side);
          rebased = rebase(base, queue, theirs, choices);
        }
        const reached = made(theirs, ...rebased.writes.map(({ change }) => change));
        expect([told, sameRecord(reached, rebased.record)]).toEqual([told, true]);
        const whole = mergeRecords(base, mine, theirs, choices).record;
        expect([told, sameRecord(reached, whole)]).toEqual([told, true]);
        const known = new Set(
          [...rebased.writes, ...rebased.idle.map((id) => ({ id }))].map(({ id }) => id),
        );
        expect([told, known]).toEqual([told, new Set(queue.map(({ id }) => id))]);
      }
      const between = changeBetween(theirs, mine);
      expect([told, between === null || sameRecord(made(theirs, between), mine)]).toEqual([
        told,
        true,
      ]);
    }
    expect(asked).toBeGreaterThan(enough(20));
  });
});

test('the table of facts in the documents names each part that merges apart', () => {
  const names = (part: Part): string[] =>
    part.as === 'fields'
      ? [
          ...(part.together ?? []).map((group) => group.join(' and ')),
          ...Object.entries(part.of ?? {}).flatMap(([name, of]) => [name, ...names(of)]),
        ]
      : part.as === 'named'
        ? names(part.of)
        : [];
  const text = fs.readFileSync(path.resolve(import.meta.dirname, '../../../docs/sync.md'), 'utf8');
  const told = new Set([...text.matchAll(/`([^`]+)`/gu)].map(([, name]) => name));
  for (const name of names(RECORD)) expect(told).toContain(name);
});
