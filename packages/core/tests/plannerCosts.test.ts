/** The planner's messages about costs, proofs and months. */
import { describe, expect, test } from '@jest/globals';
import type { Cost } from '../src/planner/cost.ts';
import {
  comparedSentence,
  monthSentence,
  proofSentence,
  simplerSentence,
} from '../src/planner/plannerWords.ts';
import { epochDayOf } from '@water-clock/core';
import { SPOKEN_BRIEF as brief } from './plannerBriefs.ts';

describe('costs', () => {
  const best: Cost = [1, 30, 0, 2, 4, 12, 20];

  test('how far the proof goes', () => {
    const said = [
      { optimal: true, bound: best },
      { optimal: false, bound: best },
      { optimal: false, bound: [0, 0, 0, 0, 0, 0, 0] },
      { optimal: false, bound: [1, 30, 0, 2, 3, 0, 0] },
      { optimal: false, bound: [0.2, 0, 0, 0, 0, 0, 0] },
      { optimal: false, bound: [1, 0, 0, 0, 0, 0, 0] },
      { optimal: false, bound: [1, 30, 0, 1, 0, 0, 0] },
      { optimal: false, bound: [1, 30, 0, 2, 4, 5.2, 0] },
      { optimal: false, bound: [1, 30, 0, 2, 4, 12, 0] },
    ].map((proof) => proofSentence(proof as { optimal: boolean; bound: Cost }, best));
    expect(said).toMatchInlineSnapshot(`
     [
       "This is the best plan possible.",
       "This is the best plan possible.",
       "Some stations are over or short. A plan that comes closer may be possible.",
       "At least 3 start times are needed. A plan with fewer than 4 may be possible.",
       "No plan gives every station what it needs. One that comes closer may be possible.",
       "30 min a week is outside the preferred hours. A plan with less may be possible.",
       "A plan with fewer than 2 programs may be possible.",
       "A plan with run times even closer to the need may be possible.",
       "A plan that finishes closer to the preferred time may be possible.",
     ]
    `);
  });

  test('what something simpler would cost, and another kind of plan', () => {
    const costs: readonly (Cost | null)[] = [
      null,
      [3, 30, 0, 2, 4, 12, 20],
      [1, 75, 0, 2, 4, 12, 20],
      [1, 30, 0, 3, 4, 12, 20],
      [1, 30, 0, 2, 4, 40, 20],
    ];
    const said = costs.flatMap((cost) => [
      simplerSentence({ what: 'programs', count: 1, cost }, best),
      simplerSentence({ what: 'starts', count: 2, cost }, best),
      ...(cost ? [comparedSentence(cost, best)] : []),
    ]);
    said.push(
      comparedSentence(best, best),
      comparedSentence([1, 30, 0, 2, 4, 3, 20], best),
      comparedSentence([0, 0, 0, 1, 2, 12, 20], best),
    );
    expect(said).toMatchInlineSnapshot(`
     [
       "With 1 program, we found no plan.",
       "With 2 start times per program, we found no plan.",
       "With 1 program, stations would be further from what they need.",
       "With 2 start times per program, stations would be further from what they need.",
       "stations further from the water they need",
       "With 1 program, 45 min more a week would fall outside the preferred hours.",
       "With 2 start times per program, 45 min more a week would fall outside the preferred hours.",
       "45 min more a week outside the preferred hours",
       "With 1 program, there would be 3 programs.",
       "With 2 start times per program, there would be 3 programs.",
       "1 more program",
       "With 1 program, run times would be further from the need.",
       "With 2 start times per program, run times would be further from the need.",
       "run times further from the need",
       "the same",
       "run times closer to the need",
       "stations closer to the water they need, 30 min less a week outside the preferred hours, 1 fewer program and 2 fewer start times",
     ]
    `);
  });
});

test('what the programs of the year do in a month', () => {
  const month = {
    month: 5,
    percent: 60,
    off: [],
    rounded: [],
    ban: null,
    late: 0,
    tight: false,
    serves: true,
    plan: null,
  };
  const may = (day: number) => epochDayOf({ year: 2027, month: 5, day });
  const ban = { month: 5, from: may(10), to: may(20), isWhole: false };
  const said = [
    month,
    { ...month, percent: null },
    { ...month, percent: null, ban: { ...ban, from: may(1), to: may(31), isWhole: true } },
    { ...month, ban },
    {
      ...month,
      rounded: [
        { number: 1, seconds: 90 },
        { number: 2, seconds: -60 },
      ],
    },
    { ...month, serves: false, off: [1] },
    { ...month, serves: false, off: [1, 2, 3, 4, 5], late: 1800, tight: true },
  ].map((each) => monthSentence(each, brief, { on: 0, clock: '12' }));
  expect(said).toMatchInlineSnapshot(`
   [
     "May: 60 %.",
     "May: no water is needed. Switch the timer off.",
     "May: off, banned from 1 May.",
     "May: 60 %. Watering by timer is banned from 10 May to 20 May.",
     "May: 60 %. Run times are rounded, so it gives Front lawn (1) 1 min 30 s a week more and station 2 1 min a week less. Keep the settings.",
     "May: at 60 %, Front lawn (1) would be more than 10 % off.",
     "May: at 60 %, Front lawn (1), station 2, station 3 and 2 more would be more than 10 % off, watering would end 30 min late and cycles could overlap.",
   ]
  `);
});
