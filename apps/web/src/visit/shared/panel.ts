/** What the panel's lines depend on: the timer's dialect and kind, the person's likes, the present date and hour at the house. */
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
  /** Null: nobody knows. */
  readonly kind: Pick<TimerKind, 'rainDelay'> | null;
}

export function panelNow({ timer }: Plan, now: number, { clock, order, kind }: Reader): PanelNow {
  const today = Math.floor(now / SECONDS_PER_DAY);
  return {
    style: { dialect: timer.dialect ?? {}, clock, order, rainDelay: kind?.rainDelay },
    today,
    secondOfDay: now - today * SECONDS_PER_DAY,
  };
}

/** The present moment as it is noted, `YYYY-MM-DDTHH:MM`. */
export const momentText = (now: number): string => formatMoment(now).slice(0, 16);

/** A plan as it is frozen: without its site, which has a row of its own. */
export function frozenAt(plan: Plan, now: number): { at: string; plan: Plan } {
  const { site: _site, ...bare } = plan;
  return { at: momentText(now), plan: bare };
}
