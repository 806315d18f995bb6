/** Serial numbers of decoders pasted in station order. */
import { plural, say } from '../language/say.ts';

export type SerialList =
  | {
      readonly ok: true;
      readonly assigned: ReadonlyMap<number, string>;
      /** Stations that had another decoder. */
      readonly replaced: readonly number[];
    }
  /** Why it cannot be assigned, as a message. */
  | { readonly ok: false; readonly why: string };

const heldBy = (station: number, serial: string) =>
  say`Station ${station} has ${serial}, which is in the list.`;

/**
 * The n-th serial is for the n-th station, also of one that has another decoder. Nothing is left out: a list that does not fit is refused.
 *
 * @param text serials of 1 to 10 digits, separated by spaces, commas or lines
 * @param stations numbers, ascending
 * @param before decoders by station
 */
export function readSerialList(
  text: string,
  stations: readonly number[],
  before: ReadonlyMap<number, string>,
): SerialList {
  const serials = text.split(/[\s,;]+/u).filter(Boolean);
  const refused = (why: string) => ({ ok: false, why }) as const;
  const wrong = serials.find((serial) => !/^\d{1,10}$/u.test(serial));
  if (wrong !== undefined)
    return refused(say`“${wrong}” is not a serial number. Use digits only, separated by commas.`);
  if (serials.length > stations.length)
    return refused(
      plural(
        stations.length,
        'The list has more serial numbers than the # station in use. Delete the rest.',
        'The list has more serial numbers than the # stations in use. Delete the rest.',
      ),
    );
  const twice = serials.find((serial, i) => serials.indexOf(serial) < i);
  if (twice !== undefined) return refused(say`${twice} is in the list twice.`);
  const others = stations.slice(serials.length);
  const holder = others.find((number) => serials.includes(before.get(number) ?? ''));
  if (holder !== undefined) return refused(heldBy(holder, before.get(holder) ?? ''));
  const assigned = new Map(
    serials.flatMap((serial, i) => {
      const station = stations[i];
      return station === undefined ? [] : [[station, serial] as const];
    }),
  );
  const replaced = [...assigned].flatMap(([station, serial]) => {
    const last = before.get(station);
    return last === undefined || last === serial ? [] : [station];
  });
  return { ok: true, assigned, replaced };
}
