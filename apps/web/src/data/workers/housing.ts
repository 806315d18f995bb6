/** Question and answer of the worker behind a site's page. Plain data both ways. */
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
  /** Language and formats of its messages. */
  readonly language: string;
}

export interface HouseAnswer {
  readonly tone: HouseTone;
  readonly headline: string;
  /** Starts that coincide, worst first. */
  readonly meetings: readonly { readonly tone: MeetingTone; readonly sentence: string }[];
  /** By timer; empty if there is too much to draw. */
  readonly nights: Readonly<Record<string, readonly Night[]>>;
  /** Why it was not calculated; null if it was. */
  readonly refusal: string | null;
}
