/** The verdict, the nights, the year and the blocked times, worked out off the page's thread. A shell over core. */
import {
  atPercent,
  attempt,
  blockedStarts,
  check,
  nightsFrom,
  yearFrom,
  type EpochDay,
  type Night,
} from '@water-clock/core';
import type { Answer, BlockedRequest, ReckonAnswer, ReckonRequest } from './messages.ts';

/** Nobody reads more overlaps than this, and copying them to the page would take longer than finding them. */
const MOST_OVERLAPS = 200;
const DAYS_OF_A_YEAR = 366;
const MILLISECONDS_BETWEEN_NEWS = 150;

const answer = (message: Answer) => self.postMessage(message);

/** Tells how far the work is, a few times a second. */
function news(): (share: number) => void {
  let last = performance.now();
  return (share) => {
    const now = performance.now();
    if (now - last < MILLISECONDS_BETWEEN_NEWS) return;
    last = now;
    answer({ kind: 'progress', share });
  };
}

/** The nights of the answer before, as text, by their date. */
let before = new Map<EpochDay, string>();

/** Most of what is typed changes few nights; only those are copied to the page, which keeps the others and draws nothing. */
function onlyNew(nights: readonly Night[]): (Night | EpochDay)[] {
  const texts = new Map(nights.map((night) => [night.day, JSON.stringify(night)]));
  const fresh = nights.map((night) =>
    before.get(night.day) === texts.get(night.day) ? night.day : night,
  );
  before = texts;
  return fresh;
}

function reckon(request: ReckonRequest): ReckonAnswer {
  const { id, plan, on, firstNight, nights, farNight, yearFrom: first, whatIf } = request;
  const checked = check(plan, on, news());
  const seen = whatIf.percent === null ? plan : atPercent(plan, whatIf.percent);
  return {
    kind: 'reckon',
    id,
    check: {
      ...checked,
      overlaps: checked.overlaps.slice(0, MOST_OVERLAPS),
      findings: checked.findings.filter(({ code }) => code !== 'overlap'),
    },
    nights: onlyNew(nightsFrom(seen, firstNight, nights, whatIf.ahead)),
    farNight: farNight === null ? null : (nightsFrom(seen, farNight, 1, whatIf.ahead)[0] ?? null),
    year: first === null ? null : yearFrom(seen, first, DAYS_OF_A_YEAR),
  };
}

function blocked({ plan, on, letter, start }: BlockedRequest): Answer {
  return { kind: 'blocked', letter, times: blockedStarts(plan, letter, start, on) };
}

self.addEventListener('message', ({ data }: MessageEvent<ReckonRequest | BlockedRequest>) => {
  const worked = attempt(() => (data.kind === 'reckon' ? reckon(data) : blocked(data)));
  if (worked.ok) answer(worked.value);
  else if (data.kind === 'reckon') answer({ kind: 'refused', id: data.id, faults: worked.faults });
  else answer({ kind: 'blocked', letter: data.letter, times: [] });
});
