/**
 * Two wires with decoders on them, simulated: a stand-in for the real line, which a box asks the same things. Each decoder has a serial, a place along
 * the wire, and a coil; one does not answer, one has a broken coil, one shorts.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { wordsOf } from '../language/say.ts';

const SERIAL_DIGITS = 6;
/** Serials that the simulation gives to decoders that replace others; they are good. */
const NEW_SERIALS = 900_000;

/** Behind the last digit of a serial that is asked for whole. */
const END = '.';
/** Longer ones are not asked for. */
const MOST_DIGITS = 10;
/** What a serial may go on with, the last asked first. */
const SYMBOLS = [END, ...'9876543210'];

type DecoderFault = 'coil-open' | 'coil-short' | 'silent';

/** What a decoder is in the ground. */
export interface Decoder {
  readonly serial: string;
  /** Along the wire from the box. */
  readonly metres: number;
  /** Of its coil while it is open. */
  readonly milliamps: number;
  readonly fault: DecoderFault | null;
}

/** What came back: none, the serial of the only one, or several at once that cannot be told apart. */
export type Answer = 'none' | 'many' | { readonly serial: string };

/** What a box can ask of two wires. */
export interface TwoWireLine {
  /** Who has a serial that begins so? With `END` behind it: that is so. */
  ask(prefix: string): Answer;
  /** Opens the valve of a decoder; milliamps, or null: it does not answer. */
  open(serial: string): number | null;
  /** What the line draws with every valve closed, milliamps. */
  atRest(): number;
}

/** Each decoder draws so much at rest, milliamps, be it heard or not. */
const REST_MILLIAMPS = 0.5;
const COIL_MILLIAMPS = 28;
const SHORT_MILLIAMPS = 640;
const METRES_APART = 14;

/** A number from texts, even and the same everywhere: FNV-1a, mixed. */
function hashOf(...parts: readonly (string | number)[]): number {
  let hash = 0x811c9dc5;
  for (const char of parts.join('|')) hash = Math.imul(hash ^ char.charCodeAt(0), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
  return (hash ^ (hash >>> 13)) >>> 0;
}

/** Which of several have a fault; all others are good. */
const FAULTS: readonly DecoderFault[] = ['coil-open', 'coil-short', 'silent'];
/** A short line has none. */
const LEAST_FAULTY = 6;

/** The serials that a line has of itself, by bed. */
function ownSerials(seed: string, beds: readonly number[]): Map<number, string> {
  const taken = new Set<number>();
  return new Map(
    beds.map((bed) => {
      let number = hashOf(seed, bed, 'serial') % NEW_SERIALS;
      while (taken.has(number)) number = (number + 1) % NEW_SERIALS;
      taken.add(number);
      return [bed, String(number).padStart(SERIAL_DIGITS, '0')] as const;
    }),
  );
}

/**
 * The decoders of a line, one for each bed in order, always the same for a seed.
 *
 * @param noted serials by bed. One that this line does not have of itself hangs at its bed: it was there before, or put in anew
 *   (`newSerial`), and then it is good. One of this line's own stays where it is, wherever it was assigned.
 */
export function simulatedDecoders(
  seed: string,
  beds: readonly number[],
  noted: ReadonlyMap<number, string> = new Map(),
): Decoder[] {
  const own = ownSerials(seed, beds);
  const ofLine = new Set(own.values());
  const first = hashOf(seed, 'faults') % Math.max(1, beds.length);
  return beds.map((bed, i): Decoder => {
    const there = noted.get(bed);
    const serial =
      there === undefined || ofLine.has(there)
        ? assertDefined(own.get(bed), 'own.get(bed)')
        : there;
    // Spread over the line: a third of it apart.
    const nth = FAULTS.findIndex(
      (_, k) => (first + Math.floor((k * beds.length) / FAULTS.length)) % beds.length === i,
    );
    const isGood = beds.length < LEAST_FAULTY || isNewSerial(serial);
    return {
      serial,
      metres: (i + 1) * METRES_APART + (hashOf(seed, bed, 'metres') % 9),
      milliamps: COIL_MILLIAMPS + (hashOf(seed, bed, 'coil') % 7) - 3,
      fault: isGood ? null : (FAULTS[nth] ?? null),
    };
  });
}

/** The serial of a decoder out of the van. @param nth of those that were put in anew */
export const newSerial = (seed: string, nth: number): string =>
  String(NEW_SERIALS + ((hashOf(seed, 'new') + nth * 7919) % (10 ** SERIAL_DIGITS - NEW_SERIALS)));

export const isNewSerial = (serial: string): boolean =>
  /^\d{6}$/u.test(serial) && Number(serial) >= NEW_SERIALS;

export class SimulatedLine implements TwoWireLine {
  readonly decoders: readonly Decoder[];

  constructor(decoders: readonly Decoder[]) {
    this.decoders = decoders;
  }

  ask(prefix: string): Answer {
    const heard = this.decoders.filter(
      ({ serial, fault }) => fault !== 'silent' && `${serial}${END}`.startsWith(prefix),
    );
    if (heard.length > 1) return 'many';
    return heard[0] ? { serial: heard[0].serial } : 'none';
  }

  open(serial: string): number | null {
    const decoder = this.decoders.find((one) => one.serial === serial);
    if (!decoder || decoder.fault === 'silent') return null;
    if (decoder.fault === 'coil-open') return 0;
    return decoder.fault === 'coil-short' ? SHORT_MILLIAMPS : decoder.milliamps;
  }

  atRest(): number {
    return this.decoders.length * REST_MILLIAMPS;
  }
}

/**
 * A search for every decoder that answers, a question at a time: where several answer at once, it asks for those whose serial goes on with each digit. It
 * can be stopped at any question, and keeps what it has found.
 */
export class LineSearch {
  private readonly line: TwoWireLine;
  private readonly waiting: string[] = [''];
  private readonly serials: string[] = [];
  private closed = 0;
  private questions = 0;

  constructor(line: TwoWireLine) {
    this.line = line;
  }

  /** In the order in which they answered. */
  get found(): readonly string[] {
    return this.serials;
  }

  get asked(): number {
    return this.questions;
  }

  /** Of all serials there are, the share that is settled, 0 to 1. */
  get share(): number {
    return this.isDone ? 1 : this.closed;
  }

  get isDone(): boolean {
    return this.waiting.length === 0;
  }

  /** One question more; nothing where it is done. */
  step(): void {
    const prefix = this.waiting.pop();
    if (prefix === undefined) return;
    this.questions += 1;
    const answer = this.line.ask(prefix);
    if (answer === 'many' && prefix.length < MOST_DIGITS && !prefix.endsWith(END)) {
      for (const symbol of SYMBOLS) this.waiting.push(`${prefix}${symbol}`);
      return;
    }
    this.closed += SYMBOLS.length ** -prefix.length;
    if (answer !== 'none' && answer !== 'many') this.serials.push(answer.serial);
  }
}

/** What is known of a station's decoder after it was tried. */
export interface DecoderReading {
  /** `YYYY-MM-DDTHH:MM`. */
  readonly at: string;
  /** Milliamps while it was open; absent: it did not answer. */
  readonly milliamps?: number;
}

/** Beyond these a coil is broken, or shorts, milliamps. */
const DECODER_LIMITS = { open: 8, short: 200 } as const;

export type DecoderState = 'good' | 'no-answer' | 'coil-open' | 'coil-short';

export function decoderState({ milliamps }: Pick<DecoderReading, 'milliamps'>): DecoderState {
  if (milliamps === undefined) return 'no-answer';
  if (milliamps < DECODER_LIMITS.open) return 'coil-open';
  return milliamps > DECODER_LIMITS.short ? 'coil-short' : 'good';
}

/** How many decoders hang on the line and did not answer, by what it draws at rest. */
export const unheard = (line: TwoWireLine, found: number): number =>
  Math.max(0, Math.round(line.atRest() / REST_MILLIAMPS) - found);

/** What each of some stations gets where a list of serials is assigned in order; those that are there already stay out. */
export function assignInOrder(
  stations: readonly number[],
  serials: readonly string[],
  assigned: ReadonlyMap<number, string>,
): Map<number, string> {
  const taken = new Set(assigned.values());
  const left = [...new Set(serials)].filter((serial) => !taken.has(serial));
  const free = stations.filter((station) => !assigned.has(station));
  return new Map(
    free
      .slice(0, left.length)
      .map((station, i) => [station, assertDefined(left[i], 'left[i]')] as const),
  );
}

export const DECODER_STATE_WORDS: Readonly<Record<DecoderState, string>> = wordsOf({
  good: 'Good',
  'no-answer': 'No answer',
  'coil-open': 'Open coil',
  'coil-short': 'Shorted coil',
});

/** What to do about it; null: nothing. */
export const DECODER_NEXT: Readonly<Record<DecoderState, string | null>> = wordsOf({
  good: null,
  'no-answer': 'Next: check its splices, then try another decoder on the same wires.',
  'coil-open':
    'Next: measure the coil by itself. An open coil is bad; if it is good, check the splice.',
  'coil-short': 'Next: disconnect the coil. If the current is gone, replace the coil.',
});
