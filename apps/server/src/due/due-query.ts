import { CLOCK_STYLES, DATE_ORDERS, type ClockStyle, type DateOrder } from '@water-clock/core';
import { Choice, DateField } from '../platform/fields.ts';

/** What is due in some days, both of them included, in somebody's way to write times and dates. */
export class DueQuery {
  @DateField('from')
  from?: string;

  @DateField('to')
  to?: string;

  @Choice('clock', CLOCK_STYLES)
  clock?: ClockStyle;

  @Choice('order', DATE_ORDERS)
  order?: DateOrder;
}
