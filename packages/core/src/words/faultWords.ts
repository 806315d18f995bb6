import { type Fault, pathText } from '../document/fault.ts';
import { listed } from './words.ts';

const quoted = (value: string | number) => (typeof value === 'string' ? `"${value}"` : `${value}`);
/** What is wrong and what is allowed; the path is told apart from it. */
export function faultSentence(fault: Fault): string {
  switch (fault.code) {
    case 'not-json':
      return `this is not JSON: ${fault.reason}`;
    case 'wrong-type':
      return `${fault.actual} stands here; ${fault.expected} is needed`;
    case 'missing-field':
      return `this field is missing; needed: ${fault.expected}`;
    case 'unknown-field':
      return `a field of this name is not known here; known: ${fault.allowed.join(', ')}`;
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
      return `${fault.actual} stands here for the second time; each may stand once`;
    case 'wrong-version':
      return `version ${fault.actual} is not known here; this reader knows version ${fault.known}`;
    case 'unknown-station':
      return `station ${fault.station} is not among the stations; add it there or leave it out here`;
    case 'unknown-program':
      return `there is no program ${fault.program}`;
    case 'beyond-timer':
      return `this timer's last ${fault.what} is ${fault.last}`;
    case 'starts-with-hours-rule':
      return 'the day rule hours takes the place of starts; the list of starts must be empty';
    case 'no-free-second':
      return 'these windows leave no second of the week free; at least one is needed';
    case 'too-much-work':
      return 'working this out would take too long: it comes to too many pieces of watering; allowed: longer pieces, fewer starts, or fewer days at a time';
    case 'already-exists':
      return `${fault.what} is there already`;
    case 'still-used':
      return `station ${fault.station} still has a run in ${listed(fault.programs)}; take that out first`;
  }
}

/** A fault as one line, `PATH: what is wrong and what is allowed`. */
export const faultLine = (fault: Fault) => `${pathText(fault.path)}: ${faultSentence(fault)}`;
