/** Monthly curves as numbers and paths. No interface code. */
import { scaleLinear, scalePoint } from 'd3-scale';
import { curveMonotoneX, line } from 'd3-shape';

export interface Curve {
  readonly name: string;
  /** January first. */
  readonly values: readonly number[];
}

interface CurveShape {
  readonly name: string;
  readonly path: string;
  readonly points: readonly { readonly x: number; readonly y: number; readonly value: number }[];
}

export interface CurveGeometry {
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly CurveShape[];
  readonly months: readonly { readonly month: number; readonly x: number }[];
  readonly ticks: readonly { readonly value: number; readonly y: number }[];
  readonly left: number;
  readonly bottom: number;
}

const LEFT = 44;
const RIGHT = 12;
const TOP = 10;
const BOTTOM = 26;
const MONTHS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] as const;

/** Curves of twelve values in a frame; the axis runs from 0 to the highest value. */
export function curveGeometry(
  curves: readonly Curve[],
  width: number,
  height: number,
): CurveGeometry {
  const highest = Math.max(1e-6, ...curves.flatMap(({ values }) => values));
  const x = scalePoint<number>()
    .domain(MONTHS)
    .range([LEFT + 10, width - RIGHT - 10]);
  const y = scaleLinear()
    .domain([0, highest])
    .nice(4)
    .range([height - BOTTOM, TOP]);
  const path = line<{ x: number; y: number }>(
    (point) => point.x,
    (point) => point.y,
  ).curve(curveMonotoneX);
  return {
    width,
    height,
    left: LEFT,
    bottom: height - BOTTOM,
    shapes: curves.map(({ name, values }) => {
      const points = MONTHS.map((month, i) => {
        const value = values[i] ?? 0;
        return { x: x(month) ?? 0, y: y(value), value };
      });
      return { name, points, path: path(points) ?? '' };
    }),
    months: MONTHS.map((month) => ({ month, x: x(month) ?? 0 })),
    ticks: y.ticks(4).map((value) => ({ value, y: y(value) })),
  };
}
