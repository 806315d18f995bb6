/** What the page of a house asks its worker, and the answer. Plain data both ways. */
import type {
  EpochDay,
  HouseSpeech,
  HouseTone,
  MeetingTone,
  Night,
  Plan,
  Survey,
} from '@water-clock/core';

export interface HouseQuestion {
  readonly timers: readonly {
    readonly id: string;
    readonly name: string;
    readonly plan: Plan;
    readonly survey: Survey;
  }[];
  /** Litres a minute; null: not measured. */
  readonly supply: number | null;
  readonly speech: Omit<HouseSpeech, 'names'>;
  readonly firstNight: EpochDay;
  readonly nights: number;
  /** Of its sentences. */
  readonly language: string;
}

export interface HouseAnswer {
  readonly tone: HouseTone;
  readonly headline: string;
  /** Starts that meet, the worst first. */
  readonly meetings: readonly { readonly tone: MeetingTone; readonly sentence: string }[];
  /** By timer; empty: too much to draw. */
  readonly nights: Readonly<Record<string, readonly Night[]>>;
  /** Why it was not worked out; null: it was. */
  readonly refusal: string | null;
}
