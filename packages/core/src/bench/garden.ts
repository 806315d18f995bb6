/** The garden of a bench timer: beds that get wet, valves and wires with their faults, and meter readings. */
import type { TimerRun, OpenValve } from '../simulatedTimer/timerState.ts';
import type { Plan } from '../plan/plan.ts';
import type { ClockSecond } from '../time/calendar.ts';
import type { StationTest } from '../visit/visit.ts';

/** Faults of the garden. */
export interface GardenFault {
  readonly fault: (typeof GARDEN_FAULTS)[number];
  readonly station: number;
  readonly on: boolean;
}
/** Its valve does not close; its circuit is open; its coil is shorted; its valve does not open although powered. */
export const GARDEN_FAULTS = ['sticks', 'dead', 'shorts', 'shut'] as const;

/** The list in the state that holds a kind of fault. */
const LISTS = { sticks: 'sticking', dead: 'dead', shorts: 'shorted', shut: 'shut' } as const;

export interface GardenState {
  readonly dead: readonly number[];
  readonly sticking: readonly number[];
  readonly shorted: readonly number[];
  readonly shut: readonly number[];
  /** Valves that did not close, and since when. */
  readonly stuck: readonly { readonly station: number; readonly since: ClockSecond }[];
  /** Seconds of water by station, without current runs. */
  readonly watered: Readonly<Record<number, number>>;
}

export interface Bed {
  readonly station: number;
  readonly name: string;
  readonly isWet: boolean;
  /** Water of the current run; null: none, or its valve does not close. */
  readonly secondsLeft: number | null;
  readonly seconds: number;
  /** Null: flow not known. */
  readonly litres: number | null;
}

/** Current of an ordinary coil while holding, and of a shorted one. */
const USUAL_MILLIAMPS = 220;
const SHORT_MILLIAMPS = 2400;

const NOTHING: GardenState = {
  ...{ dead: [], sticking: [], shorted: [], shut: [] },
  ...{ stuck: [], watered: {} },
};

export class Garden {
  private state: GardenState;

  constructor({ dead, sticking, shorted, shut, stuck, watered }: GardenState = NOTHING) {
    this.state = { dead, sticking, shorted, shut, stuck, watered };
  }

  snapshot(): GardenState {
    return this.state;
  }

  isShorted(station: number): boolean {
    return this.state.shorted.includes(station);
  }

  /** Whether nothing happens, powered or not. */
  private isDry(station: number): boolean {
    const { dead, shorted, shut } = this.state;
    return [dead, shorted, shut].some((list) => list.includes(station));
  }

  private water(station: number, seconds: number): void {
    const { watered } = this.state;
    this.set({ watered: { ...watered, [station]: (watered[station] ?? 0) + seconds } });
  }

  private set(some: Partial<GardenState>): void {
    this.state = { ...this.state, ...some };
  }

  /** A valve loses power. */
  ended({ station, on, off }: TimerRun): void {
    if (this.isDry(station)) return;
    this.water(station, off - on);
    const { sticking, stuck } = this.state;
    if (sticking.includes(station) && !stuck.some((one) => one.station === station))
      this.set({ stuck: [...stuck, { station, since: off }] });
  }

  /** Something breaks or is repaired. */
  change({ fault, station, on }: GardenFault, now: ClockSecond): void {
    const list = LISTS[fault];
    const others = this.state[list].filter((one) => one !== station);
    this.set({ [list]: on ? [...others, station] : others });
    if (fault !== 'sticks' || on) return;
    for (const { station: one, since } of this.state.stuck)
      if (one === station) this.water(station, now - since);
    this.set({ stuck: this.state.stuck.filter((one) => one.station !== station) });
  }

  wiringTest({ stations }: Plan): StationTest[] {
    return stations.map(({ number }) => {
      const coil = USUAL_MILLIAMPS + ((number * 7919) % 41) - 20;
      const isOpen = this.state.dead.includes(number);
      const milliamps = isOpen ? 0 : this.isShorted(number) ? SHORT_MILLIAMPS : coil;
      return { station: number, reading: `${milliamps} mA` };
    });
  }

  beds({ stations }: Plan, openValves: readonly OpenValve[], now: ClockSecond): Bed[] {
    const open = new Map(openValves.map((valve) => [valve.station, valve]));
    return stations.map(({ number, name = '', flowLpm }) => {
      const isDead = this.isDry(number);
      const valve = open.get(number);
      const stuck = this.state.stuck.find(({ station }) => station === number);
      const seconds =
        (this.state.watered[number] ?? 0) +
        (isDead || !valve ? 0 : now - valve.on) +
        (stuck && !valve ? now - stuck.since : 0);
      return {
        station: number,
        name,
        isWet: !isDead && (valve !== undefined || stuck !== undefined),
        secondsLeft: isDead ? null : (valve?.left ?? null),
        seconds,
        litres: flowLpm === undefined ? null : (seconds / 60) * flowLpm,
      };
    });
  }
}
