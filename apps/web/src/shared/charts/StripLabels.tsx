/** Labels on the night strip. */
import {
  lengthWords,
  SECONDS_PER_DAY,
  timeWords,
  weekdayIndexOf,
  weekdayName,
  type ClockChange,
  type ClockSecond,
  type ClockStyle,
  type Night,
  type RuledOut,
  type Weekday,
  say,
  listed,
} from '@water-clock/core';
import { STRIP, type Span, type StripGeometry } from './stripGeometry.ts';
import type { Label, PlacedLabel } from './placeLabels.ts';
import { changeSpan, markKey, mowingSpans, secondOfDay, type Mark } from './stripLayers.tsx';
import type { NightSun } from './sun.ts';

const minute = (moment: ClockSecond) => Math.round(secondOfDay(moment) / 60) * 60;

interface Worded {
  readonly night: Night;
  readonly sun: NightSun | null;
  readonly clock: ClockStyle;
  readonly ruledOut: readonly RuledOut[];
  readonly mowing: readonly Weekday[];
  readonly change: ClockChange | null;
  readonly marks: readonly Mark[];
}

/** All labels of the strip, most important first. */
export function labelsOf(
  geometry: StripGeometry,
  { night, sun, clock, ruledOut, mowing, change, marks }: Worded,
): Label[] {
  const time = (moment: ClockSecond) => timeWords(secondOfDay(moment), clock);
  const middle = ({ x, width }: Span) => x + width / 2;
  const overlaps = geometry.overlaps
    .filter((_, i) => i === 0 || !night.condensed)
    .map((overlap): Label => {
      const words = say`${listed(overlap.letters.split(''))} overlap ${lengthWords(overlap.seconds)}`;
      const half = (words.length * 8) / 2;
      const x = Math.min(Math.max(middle(overlap), half), geometry.width - half);
      return {
        key: `overlap ${overlap.letters} ${overlap.x}`,
        words,
        places: [STRIP.overlapLine, STRIP.sunLine].map((y) => ({ x, y, anchor: 'middle' })),
      };
    });
  const cycles = geometry.cycles.map((cycle): Label => {
    const y = cycle.y + cycle.height / 2 + 5;
    return {
      key: `times ${cycle.letter} ${cycle.begins}`,
      words: `${time(cycle.begins)} – ${time(cycle.ends)}`,
      places: [
        { x: cycle.x + Math.max(2, cycle.width) + 6, y, anchor: 'start' },
        { x: cycle.x - 6, y, anchor: 'end' },
      ],
    };
  });
  const changes: Label[] = change
    ? [
        {
          key: 'change',
          words: say`${timeWords(change.from, clock)} becomes ${timeWords(change.to, clock)}`,
          places: [STRIP.overlapLine, STRIP.sunLine].map((y) => ({
            x: middle(changeSpan(geometry, change)),
            y,
            anchor: 'middle',
          })),
        },
      ]
    : [];
  const suns = sun
    ? (
        [
          [sun.sunset, say`sunset`],
          [sun.sunrise, say`sunrise`],
        ] as const
      ).flatMap(([at, name]): Label[] => {
        if (at === null) return [];
        const x = geometry.scale(at);
        return [
          {
            key: `sun ${name}`,
            words: `${name} ${timeWords(minute(at), clock)}`,
            places: [
              { x, y: STRIP.sunLine, anchor: 'middle' },
              { x: x - 4, y: STRIP.sunLine, anchor: 'end' },
              { x: x + 4, y: STRIP.sunLine, anchor: 'start' },
            ],
          },
        ];
      })
    : [];
  /** Any row will do, wherever it is free. */
  const inRows = (x: number, anchor: Label['places'][number]['anchor']) =>
    geometry.rows.toReversed().map(({ y }) => ({ x, y: y + geometry.rowHeight - 12, anchor }));
  const mown = mowingSpans(night, mowing).map(({ from, to }): Label => {
    const { x, width } = geometry.span(from, to);
    return {
      key: `mown ${from}`,
      words: say`mowing day ${weekdayName(weekdayIndexOf(Math.floor(from / SECONDS_PER_DAY)))}`,
      places: to === night.to ? inRows(x + width - 6, 'end') : inRows(x + 6, 'start'),
    };
  });
  const ruled = ruledOut.flatMap(({ from, to }): Label[] => {
    const { x, width } = geometry.span(from, to);
    if (width < STRIP.roomForRules) return [];
    return [
      {
        key: `ruled ${from}`,
        words: say`not allowed by the rules`,
        places: [...inRows(x + 6, 'start'), ...inRows(x + width - 6, 'end')],
      },
    ];
  });
  const done = marks.map((mark): Label => {
    const x = geometry.scale(mark.at);
    const lines = [STRIP.overlapLine, STRIP.sunLine];
    return {
      key: `mark ${markKey(mark)}`,
      words: mark.words,
      places: [
        ...lines.map((y) => ({ x: x + 4, y, anchor: 'start' as const })),
        ...lines.map((y) => ({ x: x - 4, y, anchor: 'end' as const })),
      ],
    };
  });
  return [...overlaps, ...done, ...changes, ...cycles, ...suns, ...mown, ...ruled];
}

/** Classes of labels by the first word of their keys. */
const LOOKS: Readonly<Record<string, string>> = {
  overlap: 'strip-overlap-label',
  times: 'strip-times',
  change: 'strip-change-label',
  mark: 'strip-change-label',
  sun: 'strip-sun-label',
  mown: 'strip-mowing',
  ruled: 'strip-ruled-label',
};

export function Labels({ labels }: { readonly labels: readonly PlacedLabel[] }) {
  return labels.map(({ key, words, x, y, anchor }) => (
    <text key={key} x={x} y={y} textAnchor={anchor} className={LOOKS[key.split(' ')[0] ?? '']}>
      {words}
    </text>
  ));
}
