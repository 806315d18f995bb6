/**
 * A simulated two-wire line with decoders, standing in for a real line with the same queries. Each decoder has a serial, a place along the
 * wire and a coil; one does not answer, one has an open coil, one is shorted.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { wordsOf } from '../language/say.ts';

const SERIAL_DIGITS = 6;
/** Serials the simulation gives to replacement decoders; those are good. */
const NEW_SERIALS = 900_000;

/** Follows the last digit when a complete serial is queried. */
const END = '.';
/** Longer serials are not queried. */
const MOST_DIGITS = 10;
/** Possible next characters of a serial, last one queried first. */
const SYMBOLS = [END, ...'9876543210'];

type DecoderFault = 'coil-open' | 'coil-short' | 'silent';

/** A decoder in the ground. */
export interface Decoder {
  readonly serial: string;
  /** Distance along the wire from the timer. */
  readonly metres: number;
  /** Current of its coil while open. */
  readonly milliamps: number;
  readonly fault: DecoderFault | null;
}

/** The response: none, one serial, or several at once that cannot be told apart. */
export type Answer = 'none' | 'many' | { readonly serial: string };

/** Queries on a two-wire line. */
export interface TwoWireLine {
  /** Which decoders' serials begin with this? With `END` after it: exactly this one. */
  ask(prefix: string): Answer;
  /** Opens a decoder's valve; milliamps, or null if it does not answer. */
  open(serial: string): number | null;
  /** Current of the line with every valve closed, milliamps. */
  atRest(): number;
}

/** Idle current of each decoder, milliamps, whether or not it answers. */
const REST_MILLIAMPS = 0.5;
const COIL_MILLIAMPS = 28;
const SHORT_MILLIAMPS = 640;
const METRES_APART = 14;

/** An even hash of texts, the same everywhere: FNV-1a, mixed. */
function hashOf(...parts: readonly (string | number)[]): number {
  let hash = 0x811c9dc5;
  for (const char of parts.join('|')) hash = Math.imul(hash ^ char.charCodeAt(0), 0x01000193);
  hash = Math.imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
  return (hash ^ (hash >>> 13)) >>> 0;
}

/** Which of several are faulty; all others are good. */
const FAULTS: readonly DecoderFault[] = ['coil-open', 'coil-short', 'silent'];
/** A short line has none. */
const LEAST_FAULTY = 6;

/** The line's own serials, by bed. */
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
 * A line's decoders, one for each bed in order, the same each time for a seed.
 *
 * @param noted serials by bed. One that is not the line's own is at its bed: it was there before, or was newly installed (`newSerial`) and
 * is then good. One of the line's own stays in its place, wherever it is assigned.
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
    // Spread over the line, a third of it apart.
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

/**
 * Serial of a new decoder from the van.
 *
 * @param nth of those newly installed
 */
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
 * Searches for every decoder that answers, one query at a time: if several answer at once, it queries each possible next digit. It can be
 * stopped at any query and keeps what it has found.
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

  /** In order of answering. */
  get found(): readonly string[] {
    return this.serials;
  }

  get asked(): number {
    return this.questions;
  }

  /** Share of all possible serials that is settled, 0 to 1. */
  get share(): number {
    return this.isDone ? 1 : this.closed;
  }

  get isDone(): boolean {
    return this.waiting.length === 0;
  }

  /** One more query; nothing once it is done. */
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

/** What a test showed about a station's decoder. */
export interface DecoderReading {
  /** `YYYY-MM-DDTHH:MM`. */
  readonly at: string;
  /** Milliamps while open; absent: it did not answer. */
  readonly milliamps?: number;
}

/** Outside these a coil is open or shorted, milliamps. */
const DECODER_LIMITS = { open: 8, short: 200 } as const;

export type DecoderState = 'good' | 'no-answer' | 'coil-open' | 'coil-short';

export function decoderState({ milliamps }: Pick<DecoderReading, 'milliamps'>): DecoderState {
  if (milliamps === undefined) return 'no-answer';
  if (milliamps < DECODER_LIMITS.open) return 'coil-open';
  return milliamps > DECODER_LIMITS.short ? 'coil-short' : 'good';
}

/** Number of decoders on the line that did not answer, from its idle current. */
export const unheard = (line: TwoWireLine, found: number): number =>
  Math.max(0, Math.round(line.atRest() / REST_MILLIAMPS) - found);

/** Assigns a list of serials to stations in order; those already assigned are skipped. */
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
