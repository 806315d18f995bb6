/** The sentence for each document fault: what is wrong and what is allowed. */
import { type Fault, pathText } from '../document/fault.ts';
import { listed } from './words.ts';
import { say, sayText } from '../language/say.ts';

const quoted = (value: string | number) => (typeof value === 'string' ? `"${value}"` : `${value}`);
/** What is wrong and what is allowed, without the path. */
export function faultSentence(fault: Fault): string {
  switch (fault.code) {
    case 'not-json':
      return say`this is not JSON: ${fault.reason}`;
    case 'wrong-type':
      return say`found ${fault.actual}; expected ${sayText(fault.expected)}`;
    case 'missing-field':
      return say`this field is missing; expected ${sayText(fault.expected)}`;
    case 'unknown-field':
      return say`there is no field with this name; allowed: ${fault.allowed.join(', ')}`;
    case 'out-of-range': {
      const most = fault.most === null ? say`or more` : say`to ${fault.most}`;
      return fault.above
        ? say`${fault.actual} is out of range; allowed: above ${fault.least}`
        : say`${fault.actual} is out of range; allowed: ${fault.least} ${most}`;
    }
    case 'not-one-of':
      return say`${fault.actual} is not allowed; allowed: ${fault.allowed.map(quoted).join(', ')}`;
    case 'wrong-length':
      return say`the length is ${fault.actual}; allowed: ${fault.expected}`;
    case 'malformed':
      return say`${fault.actual} is not ${sayText(fault.expected)}`;
    case 'repeated':
      return say`${fault.actual} is listed twice; list it once`;
    case 'wrong-version':
      return say`version ${fault.actual} is not supported; use version ${fault.known}`;
    case 'unknown-station':
      return say`station ${fault.station} is not in the list of stations; add it to the list, or remove it here`;
    case 'linked-to-linked':
      return say`station ${fault.station} cannot be linked to; choose a station that is not linked itself`;
    case 'run-of-linked':
      return say`station ${fault.station} is linked to station ${fault.linkedTo} and uses its run times; delete its own run time`;
    case 'unknown-program':
      return say`there is no program ${fault.program}`;
    case 'beyond-timer':
      return fault.what === 'station'
        ? say`this timer's last station is ${fault.last}`
        : say`this timer's last program is ${fault.last}`;
    case 'starts-with-hours-rule':
      return say`a program with the day rule "hours" has no starts; empty its list of starts`;
    case 'no-free-second':
      return say`these windows cover the whole week; leave at least one second free`;
    case 'too-much-work':
      return say`this would take too long to calculate: there are too many short cycles; make the cycles longer, use fewer start times, or ask for fewer days`;
    case 'too-many-events':
      return say`this calendar would have more than ${fault.most} entries; export the runs as a table instead`;
    case 'out-of-order':
      return say`this is before the event above it, at ${fault.before}; list events in the order in which they happen`;
    case 'outside-span':
      return say`this moment is outside the simulation; allowed: ${fault.from} to ${fault.to}`;
    case 'factory-not-known':
      return say`this timer returns to its factory settings without power, and the plan does not contain them; leave powerOff out`;
    case 'already-exists':
      return say`${fault.what} already exists`;
    case 'still-used':
      return say`station ${fault.station} still has a run time in ${listed(fault.programs)}; delete it first`;
  }
}

/** A fault as one line, `PATH: what is wrong and what is allowed`. */
export const faultLine = (fault: Fault) => `${pathText(fault.path)}: ${faultSentence(fault)}`;
