/** A setting or fact in which two plans or records differ, as text. */
export interface Difference {
  /** Such as `B start times` or `Station 3, soil`. */
  readonly what: string;
  readonly before: string;
  readonly after: string;
}
