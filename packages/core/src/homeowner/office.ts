/** The company's details on the homeowner's page: an open document, `water-clock-office`, file extension `.office.json`. A company has one. */
import type { Fault, Outcome } from '../document/fault.ts';
import { foreignDocument } from '../document/openDocument.ts';
import { object, oneOf, optional, readLine, required } from '../document/reader.ts';

const OFFICE_FORMAT = 'water-clock-office';
const OFFICE_VERSION = 1;

export interface Office {
  readonly format: typeof OFFICE_FORMAT;
  readonly version: typeof OFFICE_VERSION;
  /** As dialled. */
  readonly phone?: string;
  /** Phone hours, such as `Mon to Fri, 8 to 5`. */
  readonly hours?: string;
}

/** Id under which every company saves its own; the default says nothing. */
export const OFFICE_ID = '5d1e0000-7a3c-4c1e-8e5a-0000000000f0';
export const NO_OFFICE: Office = { format: OFFICE_FORMAT, version: OFFICE_VERSION };

const shape = object<Office>({
  format: required(oneOf([OFFICE_FORMAT]), `"${OFFICE_FORMAT}"`),
  version: required(oneOf([OFFICE_VERSION]), `${OFFICE_VERSION}`),
  phone: optional(readLine),
  hours: optional(readLine),
});

/** Reads a company's details from a JSON value. Strict. */
export function readOffice(value: unknown): Outcome<Office> {
  const faults: Fault[] = [];
  const other = foreignDocument(value, OFFICE_FORMAT, OFFICE_VERSION);
  if (other) return { ok: false, faults: [other] };
  const office = shape(value, [], faults);
  return office === undefined ? { ok: false, faults } : { ok: true, value: office };
}
