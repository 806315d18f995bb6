/** The document of sightings, version 1: what someone saw of a timer, and what was found at it. */
import type { Fault, Outcome } from '../document/fault.ts';
import { foreignDocument, readJson } from '../document/openDocument.ts';
import { list, object, oneOf, optional, required } from '../document/reader.ts';
import { assertDefined } from '../document/assertDefined.ts';
import type { Plan } from '../plan/plan.ts';
import { readPlan } from '../plan/readPlan.ts';
import { formatMoment, parseMoment, parseSecond, SECONDS_PER_DAY } from '../time/calendar.ts';
import { readSecond } from '../time/timeReaders.ts';
import { MOST_SIGHTINGS, readSighting } from '../visit/readVisit.ts';
import { SIGNS, type Sighting, type Sign } from '../visit/visit.ts';
import { pressesOf, type Cause } from './causes.ts';
import { evidenceOf } from './evidence.ts';
import { explain } from './explain.ts';
import { explanationSentence, lookSentence, mendSentence } from './diagnoseWords.ts';
import { MISS } from './timeline.ts';
import type { Question } from './triedWorlds.ts';

export const SIGHTINGS_FORMAT = 'water-clock-sightings';
const SIGHTINGS_VERSION = 1;

export interface Sightings {
  readonly format: typeof SIGHTINGS_FORMAT;
  readonly version: typeof SIGHTINGS_VERSION;
  readonly sightings: readonly Sighting[];
  /** What the timer shows. */
  readonly signs?: readonly Sign[];
  /** What its clock showed at a true time. */
  readonly clock?: { readonly shows: string; readonly is: string };
  /** What the timer falls back to when it loses its memory. */
  readonly factory?: Plan;
}

const shape = object<Sightings>({
  format: required(oneOf([SIGHTINGS_FORMAT]), `"${SIGHTINGS_FORMAT}"`),
  version: required(oneOf([SIGHTINGS_VERSION]), `${SIGHTINGS_VERSION}`),
  sightings: required(
    list(readSighting, { least: 1, most: MOST_SIGHTINGS }),
    'a list of sightings',
  ),
  signs: optional(list(oneOf(SIGNS), { unique: true })),
  clock: optional(
    object<NonNullable<Sightings['clock']>>({
      shows: required(readSecond, 'a moment'),
      is: required(readSecond, 'a moment'),
    }),
  ),
  factory: optional((value, path, faults) => {
    const read = readPlan(value);
    if (read.ok) return read.value;
    for (const fault of read.faults) faults.push({ ...fault, path: [...path, ...fault.path] });
    return undefined;
  }),
});

/** Reads a document of sightings. Strict. */
export function readSightings(value: unknown): Outcome<Sightings> {
  const other = foreignDocument(value, SIGHTINGS_FORMAT, SIGHTINGS_VERSION);
  if (other) return { ok: false, faults: [other] };
  const faults: Fault[] = [];
  const read = shape(value, [], faults);
  if (!read) return { ok: false, faults };
  read.sightings.forEach(({ from, to }, i) => {
    if (to !== undefined && to < from)
      faults.push({ code: 'out-of-order', path: ['sightings', i, 'to'], before: from });
  });
  return faults.length > 0 ? { ok: false, faults } : { ok: true, value: read };
}

export const readSightingsText = (json: string): Outcome<Sightings> =>
  readJson(json, readSightings);

/** The question that a document of sightings asks about a timer with these settings. */
function questionOf(plan: Plan, { sightings, signs, clock, factory }: Sightings): Question {
  return {
    ...{ plan, sightings, signs: signs ?? [], factory: factory ?? null },
    ahead: clock
      ? assertDefined(parseSecond(clock.shows), 'parseSecond(clock.shows)') -
        assertDefined(parseSecond(clock.is), 'parseSecond(clock.is)')
      : null,
  };
}

/** Fields of a cause that are moments. */
const MOMENTS = ['at', 'from', 'to'];

/** A cause with its moments as text. */
const inText = (cause: Cause): object =>
  Object.fromEntries(
    Object.entries(cause).map(([name, value]) => [
      name,
      MOMENTS.includes(name) && typeof value === 'number' ? formatMoment(value) : value,
    ]),
  );

/**
 * Output of `water-clock explain`: likely causes of the sightings, likeliest first.
 *
 * @throws TooMuchWork
 */
export function explainReport(plan: Plan, document: Sightings) {
  const question = questionOf(plan, document);
  const found = explain(question);
  const [best] = found;
  const last = Math.max(
    ...document.sightings.map(({ from }) => assertDefined(parseMoment(from), 'parseMoment(from)')),
  );
  const speech = { plan, on: Math.floor(last / SECONDS_PER_DAY), clock: '24' as const };
  return {
    explanations: found.map((explanation) => ({
      causes: explanation.causes.map(inText),
      sentence: explanationSentence(explanation.causes, speech),
      /** Log likelihood ratio to the first. */
      cost: Math.round((explanation.cost - assertDefined(best, 'best').cost) * 100) / 100,
      fits: explanation.fits.map((cost) =>
        cost < 1 ? 'fits' : cost < MISS - 3 ? 'nearly' : 'contradicts',
      ),
      look: explanation.causes.map((cause) => lookSentence(cause, speech)),
      mend: explanation.causes.map((cause) => mendSentence(cause, speech)),
      /** Actions on the timer, as in an events document. */
      events: pressesOf(explanation.world),
      behind: evidenceOf(explanation, document.sightings),
      or: explanation.or.map(({ causes }) => ({
        causes: causes.map(inText),
        sentence: explanationSentence(causes, speech),
      })),
    })),
  };
}
