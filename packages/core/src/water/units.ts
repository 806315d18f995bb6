/**
 * Conversion between the units of calculation (mm, m², litres a minute) and display units. A typed value survives the round trip:
 * `typed(shown(x))` shows the same again, since it is rounded only once, for display.
 */

export type UnitSystem = 'metric' | 'us';
export type Quantity = 'depth' | 'rate' | 'area' | 'flow' | 'volume' | 'length';

interface Unit {
  /** Units of calculation in one. */
  readonly size: number;
  readonly decimals: number;
  readonly words: string;
}

/** Exact by definition: inch 25.4 mm, foot 0.3048 m, US gallon 3.785411784 litres. */
const UNITS: Record<UnitSystem, Record<Quantity, Unit>> = {
  metric: {
    depth: { size: 1, decimals: 1, words: 'mm' },
    rate: { size: 1, decimals: 1, words: 'mm/h' },
    area: { size: 1, decimals: 1, words: 'm²' },
    flow: { size: 1, decimals: 1, words: 'L/min' },
    volume: { size: 1, decimals: 0, words: 'L' },
    length: { size: 1, decimals: 2, words: 'm' },
  },
  us: {
    depth: { size: 25.4, decimals: 2, words: 'in' },
    rate: { size: 25.4, decimals: 2, words: 'in/h' },
    area: { size: 0.3048 ** 2, decimals: 0, words: 'ft²' },
    flow: { size: 3.785411784, decimals: 2, words: 'gpm' },
    volume: { size: 3.785411784, decimals: 0, words: 'gal' },
    length: { size: 0.3048, decimals: 1, words: 'ft' },
  },
};

/** A calculated value for display, without its unit. */
export const shownIn = (system: UnitSystem, quantity: Quantity, value: number): string => {
  const { size, decimals } = UNITS[system][quantity];
  return (value / size).toFixed(decimals);
};

/** A typed value in display units, converted to the units of calculation. */
export const typedIn = (system: UnitSystem, quantity: Quantity, value: number): number =>
  value * UNITS[system][quantity].size;

export const unitWords = (system: UnitSystem, quantity: Quantity): string =>
  UNITS[system][quantity].words;

/** `12.5 mm/h`, `0.49 in/h`, `40 L/min`. */
export const quantityWords = (system: UnitSystem, quantity: Quantity, value: number): string =>
  `${Number(shownIn(system, quantity, value))} ${unitWords(system, quantity)}`;
