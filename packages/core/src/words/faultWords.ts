/** The sentence for each fault of a document: what is wrong and what is allowed. */
import { type Fault, pathText } from '../document/fault.ts';
import { listed } from './words.ts';

const quoted = (value: string | number) => (typeof value === 'string' ? `"${value}"` : `${value}`);
/** What is wrong and what is allowed, without the path. */
export function faultSentence(fault: Fault): string {
  switch (fault.code) {
    case 'not-json':
      return `this is not JSON: ${fault.reason}`;
    case 'wrong-type':
      return `found ${fault.actual}; expected ${fault.expected}`;
    case 'missing-field':
      return `this field is missing; expected ${fault.expected}`;
    case 'unknown-field':
      return `there is no field of this name; allowed: ${fault.allowed.join(', ')}`;
    case 'out-of-range': {
      const most = fault.most === null ? 'or more' : `to ${fault.most}`;
      return fault.above
        ? `${fault.actual} is out of range; allowed: above ${fault.least}`
        : `${fault.actual} is out of range; allowed: ${fault.least} ${most}`;
    }
    case 'not-one-of':
      return `${fault.actual} is not allowed; allowed: ${fault.allowed.map(quoted).join(', ')}`;
    case 'wrong-length':
      return `the length is ${fault.actual}; allowed: ${fault.expected}`;
    case 'malformed':
      return `${fault.actual} is not ${fault.expected}`;
    case 'repeated':
      return `${fault.actual} is listed twice; list it once`;
    case 'wrong-version':
      return `version ${fault.actual} is not supported; use version ${fault.known}`;
    case 'unknown-station':
      return `station ${fault.station} is not in the list of stations; add it to the list, or remove it here`;
    case 'linked-to-linked':
      return `station ${fault.station} cannot be linked to: link to another station that is not linked itself`;
    case 'run-of-linked':
      return `station ${fault.station} has the runs of station ${fault.linkedTo}, which it is linked to; delete its own run`;
    case 'unknown-program':
      return `there is no program ${fault.program}`;
    case 'beyond-timer':
      return `this timer's last ${fault.what} is ${fault.last}`;
    case 'starts-with-hours-rule':
      return 'a program with the day rule "hours" has no starts; empty its list of starts';
    case 'no-free-second':
      return 'these windows cover the whole week; leave at least one second free';
    case 'too-much-work':
      return 'this would take too long to work out: there are too many pieces of watering; make the pieces longer, use fewer starts, or ask for fewer days';
    case 'too-many-events':
      return `this calendar would have more than ${fault.most} entries; take the runs as a table instead`;
    case 'out-of-order':
      return `this is before the event above it, at ${fault.before}; list events in the order in which they happen`;
    case 'outside-span':
      return `this moment is not simulated; allowed: ${fault.from} to ${fault.to}`;
    case 'factory-not-known':
      return 'this timer falls back to its factory settings without power, and the plan does not hold them; leave powerOff out';
    case 'already-exists':
      return `${fault.what} already exists`;
    case 'still-used':
      return `station ${fault.station} still has a run in ${listed(fault.programs)}; delete that run first`;
  }
}

/** A fault as one line, `PATH: what is wrong and what is allowed`. */
export const faultLine = (fault: Fault) => `${pathText(fault.path)}: ${faultSentence(fault)}`;
