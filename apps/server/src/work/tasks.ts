/** Heavy work, each a pure function of data that can be sent to a thread. */
import {
  attempt,
  type DoorCard,
  type EpochDay,
  type HomeownerPage,
  type Outcome,
  type Plan,
} from '@water-clock/core';
import { cardPdf, type CardPaper } from '../formats/card-pdf.ts';
import { pagePdf, type Paper } from '../formats/page-pdf.ts';
import { runsTable, wateringCalendar } from '../formats/watering.ts';

const whole = async (bytes: Promise<Buffer>): Promise<Outcome<Uint8Array>> => ({
  ok: true,
  value: await bytes,
});

export const TASKS = {
  /** @returns an iCalendar; faults by paths of the plan */
  calendar: (input: {
    readonly plan: Plan;
    readonly name: string;
    readonly today: EpochDay;
    readonly timerId: string;
    readonly made: string;
  }): Outcome<string> =>
    attempt(() => wateringCalendar(input.plan, input.name, input.today, input.timerId, input.made)),
  /** @returns a CSV; faults by paths of the plan */
  runs: (input: {
    readonly plan: Plan;
    readonly today: EpochDay;
    readonly days: number;
  }): Outcome<string> => attempt(() => runsTable(input.plan, input.today, input.days)),
  page: (input: { readonly page: HomeownerPage; readonly paper: Paper }) =>
    whole(pagePdf(input.page, input.paper)),
  card: (input: { readonly card: DoorCard; readonly paper: CardPaper }) =>
    whole(cardPdf(input.card, input.paper)),
} as const;

export type Task = keyof typeof TASKS;
export type InputOf<T extends Task> = Parameters<(typeof TASKS)[T]>[0];
export type ValueOf<T extends Task> =
  Awaited<ReturnType<(typeof TASKS)[T]>> extends Outcome<infer V> ? V : never;
