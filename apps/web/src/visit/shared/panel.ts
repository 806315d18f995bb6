/** What panel lines depend on: the timer's display and kind, preferences, and the current time at the site. */
import {
  formatMoment,
  SECONDS_PER_DAY,
  type ClockStyle,
  type DateOrder,
  type PanelNow,
  type Plan,
  type TimerKind,
} from '@water-clock/core';

interface Reader {
  readonly clock: ClockStyle;
  readonly order: DateOrder;
  /** Null: not known. */
  readonly kind: Pick<TimerKind, 'rainDelay' | 'power'> | null;
}

export function panelNow({ timer }: Plan, now: number, { clock, order, kind }: Reader): PanelNow {
  const today = Math.floor(now / SECONDS_PER_DAY);
  return {
    style: { dialect: timer.dialect ?? {}, clock, order, rainDelay: kind?.rainDelay },
    power: kind?.power ?? null,
    today,
    secondOfDay: now - today * SECONDS_PER_DAY,
  };
}

/** The current time as noted, `YYYY-MM-DDTHH:MM`. */
export const momentText = (now: number): string => formatMoment(now).slice(0, 16);

/** A plan as saved in a visit, without its site, which has its own row. */
export function frozenAt(plan: Plan, now: number): { at: string; plan: Plan } {
  const { site: _site, ...bare } = plan;
  return { at: momentText(now), plan: bare };
}
