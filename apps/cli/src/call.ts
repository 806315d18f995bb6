/** The parsed command line. */
import { parseArgs } from 'node:util';
import { parseDate, type EpochDay } from '@water-clock/core';

export type Call =
  | { readonly command: 'help' }
  | {
      readonly command: 'check';
      readonly files: readonly string[];
      readonly on: EpochDay;
      /** File of the brief; null if there is none. */
      readonly brief: string | null;
      /** Litres a minute of the supply; null if not given. */
      readonly supply: number | null;
      /** Whether a pump keeps running with no valve open: no pump (null), or `unknown`. */
      readonly pump: PumpWord | null;
    }
  | {
      readonly command: 'plan';
      readonly files: readonly string[];
      /** Earliest first date for an interval; null for the default. */
      readonly on: EpochDay | null;
    }
  /** Files of the plan and the brief. */
  | { readonly command: 'repair'; readonly files: readonly string[]; readonly on: EpochDay }
  | {
      /** Files of the plan and the garden. */
      readonly command: 'season';
      readonly files: readonly string[];
      /** Station to list day by day; null for none. */
      readonly daily: number | null;
    }
  /** Files of the plan and the sightings. */
  | { readonly command: 'explain'; readonly files: readonly string[] }
  | {
      readonly command: 'simulate';
      readonly files: readonly string[];
      readonly from: string;
      readonly fromDay: EpochDay;
      readonly days: number;
      /** File of the events; null if nothing happens to the timer. */
      readonly events: string | null;
    };

const PUMP_WORDS = ['runs-on', 'stops', 'unknown'] as const;
type PumpWord = (typeof PUMP_WORDS)[number];

/** The command line is wrong; the message says what is allowed. Exit code 2. */
export class CallError extends Error {}

/** Ten years. Our own limit, not the specification's. */
export const MOST_DAYS = 3660;

function dateOf(option: string, value: string | undefined): EpochDay {
  if (value === undefined) throw new CallError(`${option} is missing: ${option} YYYY-MM-DD`);
  const day = parseDate(value);
  if (day === null)
    throw new CallError(
      `${option} ${value}: not a date; allowed: YYYY-MM-DD, years 1970 to 9999, a date that exists`,
    );
  return day;
}

/** The options about the water of `check`. */
function waterOf({ supply, pump }: { readonly supply?: string; readonly pump?: string }) {
  if (supply !== undefined && !(/^\d+(\.\d+)?$/.test(supply) && Number(supply) > 0))
    throw new CallError(`--supply ${supply}: allowed: litres a minute, above 0`);
  const word = PUMP_WORDS.find((one) => one === pump);
  if (pump !== undefined && !word)
    throw new CallError(`--pump ${pump}: allowed: ${PUMP_WORDS.join(', ')}`);
  return { supply: supply === undefined ? null : Number(supply), pump: word ?? null };
}

const today = (): EpochDay => Math.floor(Date.now() / 86_400_000);

const COMMANDS = ['check', 'explain', 'plan', 'repair', 'season', 'simulate'] as const;
const isCommand = (text: string | undefined): text is (typeof COMMANDS)[number] =>
  COMMANDS.some((one) => one === text);

/** Parses the arguments after the program name. Throws `CallError`. */
export function readCall(args: readonly string[]): Call {
  let parsed;
  try {
    parsed = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        help: { type: 'boolean', short: 'h' },
        on: { type: 'string' },
        from: { type: 'string' },
        days: { type: 'string' },
        brief: { type: 'string' },
        events: { type: 'string' },
        daily: { type: 'string' },
        supply: { type: 'string' },
        pump: { type: 'string' },
      },
    });
  } catch (error) {
    throw new CallError(error instanceof Error ? error.message : String(error));
  }
  const { values, positionals } = parsed;
  const [command, ...files] = positionals;
  if (values.help || command === 'help') return { command: 'help' };
  const unwanted = (names: readonly ('on' | 'from' | 'days' | 'brief' | 'events')[]) => {
    if (values.daily !== undefined && command !== 'season')
      throw new CallError(`--daily does not go with ${command}`);
    for (const name of ['supply', 'pump'] as const)
      if (values[name] !== undefined && command !== 'check')
        throw new CallError(`--${name} does not go with ${command}`);
    for (const name of names)
      if (values[name] !== undefined) throw new CallError(`--${name} does not go with ${command}`);
  };
  if (!isCommand(command))
    throw new CallError(
      command === undefined
        ? 'a command is missing: check, explain, plan, repair, season or simulate'
        : `unknown command ${command}; allowed: ${COMMANDS.join(', ')}`,
    );
  if (files.length === 0)
    throw new CallError(
      `${command} needs a ${command === 'plan' ? 'BRIEF' : 'PLAN'}: a file, or - for standard input`,
    );
  if ([...files, values.brief, values.events].filter((file) => file === '-').length > 1)
    throw new CallError('- stands for standard input, which can be read once only');
  if (command === 'explain') {
    unwanted(['from', 'days', 'brief', 'events', 'on']);
    if (files.length !== 2) throw new CallError('explain needs a PLAN and SIGHTINGS: two files');
    return { command, files };
  }
  if (command === 'season') {
    unwanted(['from', 'days', 'brief', 'events', 'on']);
    if (files.length !== 2) throw new CallError('season needs a PLAN and a GARDEN: two files');
    const { daily } = values;
    if (daily !== undefined && !/^[1-9]\d?$/.test(daily))
      throw new CallError(`--daily ${daily}: allowed: the number of a station, 1 to 99`);
    return { command, files, daily: daily === undefined ? null : Number(daily) };
  }
  if (command === 'repair') {
    unwanted(['from', 'days', 'brief', 'events']);
    if (files.length !== 2) throw new CallError('repair needs a PLAN and a BRIEF: two files');
    const on = values.on === undefined ? today() : dateOf('--on', values.on);
    return { command, files, on };
  }
  if (command === 'check') {
    unwanted(['from', 'days', 'events']);
    const on = dateOf('--on', values.on);
    return { command, files, on, brief: values.brief ?? null, ...waterOf(values) };
  }
  if (command === 'plan') {
    unwanted(['from', 'days', 'brief', 'events']);
    return { command, files, on: values.on === undefined ? null : dateOf('--on', values.on) };
  }
  unwanted(['on', 'brief']);
  const fromDay = dateOf('--from', values.from);
  const days = Number(values.days);
  if (!/^\d+$/.test(values.days ?? '') || days < 1 || days > MOST_DAYS)
    throw new CallError(`--days ${values.days ?? ''}: allowed: a whole number, 1 to ${MOST_DAYS}`);
  const events = values.events ?? null;
  return { command, files, from: values.from ?? '', fromDay, days, events };
}
