/** Heavy work. Each task is a pure function of data that can be sent to a thread. */
import {
  attempt,
  doorCard,
  homeownerPage,
  replan,
  withTranslator,
  timerStatus,
  visitFacts,
  type CardSources,
  type ClosedVisit,
  type EpochDay,
  type HomeownerPage,
  type Outcome,
  type PageSources,
  type Plan,
  type ReplanAim,
  type Replanned,
  type ReplanSources,
  type Rules,
  type RuledHouse,
  type SiteWater,
  type Survey,
  type TimerRecord,
  type TimerStatus,
  type VisitFacts,
} from '@water-clock/core';
import { translatorOf } from '@water-clock/words';
import { cardPdf, type CardPaper } from '../formats/card-pdf.ts';
import { pagePdf, type Paper } from '../formats/page-pdf.ts';
import type { ReadArchive } from '../formats/archive-reader.ts';
import type { Packed } from '../formats/archive-writer.ts';
import { runsTable, wateringCalendar } from '../formats/watering.ts';

const whole = async <T>(value: T | Promise<T>): Promise<Outcome<T>> => ({
  ok: true,
  value: await value,
});

export const TASKS = {
  /** @returns an iCalendar file; faults by path in the plan */
  calendar: (input: {
    readonly plan: Plan;
    readonly name: string;
    readonly today: EpochDay;
    readonly timerId: string;
    readonly made: string;
  }): Outcome<string> =>
    attempt(() => wateringCalendar(input.plan, input.name, input.today, input.timerId, input.made)),
  /** @returns a CSV file; faults by path in the plan */
  runs: (input: {
    readonly plan: Plan;
    readonly today: EpochDay;
    readonly days: number;
  }): Outcome<string> => attempt(() => runsTable(input.plan, input.today, input.days)),
  statuses: (
    input: readonly {
      readonly record: TimerRecord;
      readonly rules: Rules | null;
      readonly house: RuledHouse & SiteWater;
      readonly on: EpochDay;
    }[],
  ): Outcome<TimerStatus[]> => ({
    ok: true,
    value: input.map(({ record, rules, house, on }) => timerStatus(record, rules, house, on)),
  }),
  visitFacts: (
    input: readonly { readonly visit: ClosedVisit; readonly survey: Survey }[],
  ): Outcome<VisitFacts[]> => ({
    ok: true,
    value: input.map(({ visit, survey }) => visitFacts(visit, survey)),
  }),
  replan: ({
    sources,
    aim,
  }: {
    readonly sources: ReplanSources;
    readonly aim: ReplanAim;
  }): Outcome<Replanned> => ({ ok: true, value: replan(sources, aim) }),
  /** Archive modules are rarely needed, so they are loaded on first use. */
  unpack: async (bytes: Uint8Array): Promise<Outcome<ReadArchive>> => {
    const { readArchive } = await import('../formats/archive-reader.ts');
    return whole(readArchive(bytes));
  },
  pack: async (input: Packed): Promise<Outcome<Uint8Array>> => {
    const { packArchive } = await import('../formats/archive-writer.ts');
    return whole<Uint8Array>(packArchive(input));
  },
  homeownerPage: async (sources: PageSources): Promise<Outcome<HomeownerPage>> => {
    const speaker = await translatorOf(sources.language);
    return withTranslator(speaker, () => attempt(() => homeownerPage(sources)));
  },
  pagePdf: async ({ sources, paper }: { readonly sources: PageSources; readonly paper: Paper }) => {
    const speaker = await translatorOf(sources.language);
    const page = withTranslator(speaker, () => homeownerPage(sources));
    return whole<Uint8Array>(pagePdf(page, paper));
  },
  cardPdf: async ({
    sources,
    paper,
  }: {
    readonly sources: CardSources;
    readonly paper: CardPaper;
  }) => {
    const speaker = await translatorOf(sources.language);
    const card = withTranslator(speaker, () => doorCard(sources));
    return whole<Uint8Array>(cardPdf(card, paper));
  },
} as const;

export type Task = keyof typeof TASKS;
export type InputOf<T extends Task> = Parameters<(typeof TASKS)[T]>[0];
export type ValueOf<T extends Task> =
  Awaited<ReturnType<(typeof TASKS)[T]>> extends Outcome<infer V> ? V : never;
