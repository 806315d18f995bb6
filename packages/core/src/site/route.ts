/** An order for visiting places by straight-line distance: a guess, since roads are not known. */
export interface Position {
  /** Degrees north and east. */
  readonly latitude: number;
  readonly longitude: number;
}

const EARTH_KM = 6371;
const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Great-circle distance in km (haversine). */
export function kilometresBetween(a: Position, b: Position): number {
  const half = (x: number) => Math.sin(x / 2) ** 2;
  const h =
    half(radians(b.latitude - a.latitude)) +
    Math.cos(radians(a.latitude)) *
      Math.cos(radians(b.latitude)) *
      half(radians(b.longitude - a.longitude));
  return 2 * EARTH_KM * Math.asin(Math.min(1, Math.sqrt(h)));
}

/** Length of a route in km. */
export const routeKilometres = (places: readonly Position[]): number =>
  places.reduce((sum, place, i) => {
    const before = places[i - 1];
    return before ? sum + kilometresBetween(before, place) : 0;
  }, 0);

/** From each place to the nearest remaining one. */
function nearestFrom<P extends Position>(first: P, others: readonly P[]): P[] {
  const left = [...others];
  const way = [first];
  for (let here: P | undefined = first; here && left.length > 0;) {
    const from: P = here;
    const distances = left.map((place) => kilometresBetween(from, place));
    const [next] = left.splice(distances.indexOf(Math.min(...distances)), 1);
    if (next) way.push(next);
    here = next;
  }
  return way;
}

/** Reverses parts of the route while that makes it shorter (2-opt). */
function untangled<P extends Position>(way: readonly P[]): P[] {
  let best = [...way];
  let length = routeKilometres(best);
  for (let isShorter = true; isShorter;) {
    isShorter = false;
    for (let from = 0; from < best.length - 1; from++)
      for (let to = from + 1; to < best.length; to++) {
        const turned = [
          ...best.slice(0, from),
          ...best.slice(from, to + 1).reverse(),
          ...best.slice(to + 1),
        ];
        const other = routeKilometres(turned);
        if (other < length - 1e-9) {
          best = turned;
          length = other;
          isShorter = true;
        }
      }
  }
  return best;
}

/**
 * Places in a short order, open at both ends: nearest neighbour from each of them, the shortest improved by 2-opt. Cost: cubic; a day has a
 * few tens of places.
 */
export function routeThrough<P extends Position>(places: readonly P[]): P[] {
  const ways = places.map((first) =>
    nearestFrom(
      first,
      places.filter((place) => place !== first),
    ),
  );
  const [shortest] = ways
    .map((way) => ({ way, length: routeKilometres(way) }))
    .sort((a, b) => a.length - b.length);
  return shortest ? untangled(shortest.way) : [];
}
