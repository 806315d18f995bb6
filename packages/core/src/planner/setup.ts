/** Inputs of a search, from the brief and the pins. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { mowingMask } from '../brief/wanted.ts';
import { Effort } from '../engine/effort.ts';
import { parseDate, parseTime, type EpochDay } from '../time/calendar.ts';
import { EVERY_WEEKDAY, maskOfMonthDays, ruleSet } from '../time/dayRules.ts';
import { Drafting } from './draft.ts';
import { DraftRules } from './draftCycle.ts';
import type { Fixed } from './drafted.ts';
import { barePlan, needsOf, type Need } from './needs.ts';
import type { Pins, PlannerOptions } from './options.ts';
import { Patterns } from './patterns.ts';
import { RunChoices, slotKinds, type FixedSlot, type SlotKind } from './slots.ts';

/** Default first date of an interval, so that a brief has the same plan on any day. */
const USUAL_FIRST_DATE: EpochDay = assertDefined(
  parseDate('2027-01-01'),
  "parseDate('2027-01-01')",
);

/** Engine steps. */
const MOST_PLANNING_STEPS = 400_000_000;

export interface Setup {
  readonly needs: readonly Need[];
  readonly rules: DraftRules;
  readonly drafting: Drafting;
  readonly kinds: readonly SlotKind[];
  readonly fixed: readonly Fixed[];
  /** The programs of `fixed`, with their possible kinds. */
  readonly slots: readonly FixedSlot[];
  readonly mostPrograms: number;
  /** Of one program. */
  readonly mostStarts: number;
}

/**
 * @param tried called with the number of placements tried so far
 * @throws TooMuchWork
 */
export function setUp(
  brief: Brief,
  { pins = {}, on = USUAL_FIRST_DATE, avoid = [], linked = [] }: PlannerOptions,
  tried: ((tries: number) => void) | undefined,
): Setup {
  const effort = new Effort(MOST_PLANNING_STEPS);
  const needs = needsOf(
    brief,
    new Map((pins.runs ?? []).map(({ station, seconds }) => [station, seconds])),
  );
  const masks = [...needs.map(({ allowed }) => allowed), EVERY_WEEKDAY & ~mowingMask(brief)];
  const leastDays = Math.min(...needs.map(({ least }) => least), 7);
  const patterns = new Patterns(brief, [...new Set(masks)], on, leastDays, effort);
  const rules = new DraftRules(brief, barePlan(brief, linked), patterns, effort);
  const fixed = fixedOf(pins);
  const kinds = slotKinds(brief, needs, patterns);
  return {
    needs,
    rules,
    drafting: new Drafting(rules, new RunChoices(brief), needs, fixed, avoid, tried),
    kinds,
    fixed,
    slots: fixed.map(({ letter, stations }) => ({
      letter,
      kinds: pinnedKinds(letter, pins, { brief, needs, patterns }) ?? kinds,
      members: needs.flatMap(({ number }, i) => (stations.includes(number) ? [i] : [])),
    })),
    mostPrograms: programsAllowed(brief, needs, fixed),
    mostStarts: startsAllowed(brief, needs),
  };
}

/** The pins for the search: programs with their own letters, in order. */
function fixedOf({ stations = [], starts = [], days = [] }: Pins): Fixed[] {
  const letters = new Set([...stations, ...starts, ...days].map(({ program }) => program));
  return [...letters].sort().map((letter) => ({
    letter,
    starts: starts
      .filter(({ program }) => program === letter)
      .map(({ start }) => assertDefined(parseTime(start), 'parseTime(start)')),
    stations: stations.filter(({ program }) => program === letter).map(({ station }) => station),
  }));
}

function programsAllowed(brief: Brief, needs: readonly Need[], fixed: readonly Fixed[]): number {
  const own = wishOf(brief).programs === 'one' ? 1 : brief.timer.programCount;
  const most = Math.min(own, needs.length);
  // If every station is pinned to a program, other programs have nothing to water.
  const pinned = fixed.reduce((sum, { stations }) => sum + stations.length, 0);
  return pinned >= needs.length && pinned > 0 ? Math.min(most, fixed.length) : most;
}

/** Most starts of a program that timer and wish allow. */
function startsAllowed(brief: Brief, needs: readonly Need[]): number {
  const { starts } = wishOf(brief);
  const own = brief.timer.startsPerProgram;
  if (starts === 'one') return 1;
  // A timer that splits runs itself needs no second start, except for stations with several waterings a day.
  if (starts === 'timer-soak') return needs.some(({ often }) => often) ? own : 1;
  return own;
}

/** Possible kinds of a program whose days are pinned; null: they are not. */
function pinnedKinds(
  letter: string,
  { days = [] }: Pins,
  { brief, needs, patterns }: { brief: Brief; needs: readonly Need[]; patterns: Patterns },
): readonly SlotKind[] | null {
  const pinned = days.find(({ program }) => program === letter)?.days;
  if (!pinned) return null;
  const off = maskOfMonthDays(brief.settings?.offDaysOfMonth ?? []);
  const rule = ruleSet(pinned, brief.timer.oddDaysSkip31);
  const pattern = patterns.patternOf(pinned, { ...rule, monthDays: rule.monthDays & ~off });
  if (!pattern) return [];
  return slotKinds(brief, needs, patterns, [pattern]).map((kind, i) => ({ ...kind, id: -1 - i }));
}
