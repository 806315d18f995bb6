/** Places labels on the strip so that none covers another. No interface code. */

type Anchor = 'start' | 'middle' | 'end';

/** A possible place of a label: `x` is its start, middle or end, `y` its baseline. */
interface LabelPlace {
  readonly x: number;
  readonly y: number;
  readonly anchor: Anchor;
}

export interface Label {
  readonly key: string;
  readonly words: string;
  /** Best first. If none is free, the label is left out. */
  readonly places: readonly LabelPlace[];
}

export interface PlacedLabel extends LabelPlace {
  readonly key: string;
  readonly words: string;
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** Width of a character in pixels, rounded up. */
const LETTER = 7.6;
const ASCENT = 12;
const DESCENT = 4;
/** Pixels between two labels. */
const APART = 6;

function boxOf({ x, y, anchor }: LabelPlace, words: string): Box {
  const width = words.length * LETTER;
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
  return { left, right: left + width, top: y - ASCENT, bottom: y + DESCENT };
}

const meet = (a: Box, b: Box): boolean =>
  a.left < b.right + APART && b.left < a.right + APART && a.top < b.bottom && b.top < a.bottom;

/** Places labels in order of importance, each at its first free place inside the strip. */
export function placedLabels(labels: readonly Label[], width: number): PlacedLabel[] {
  const taken: Box[] = [];
  return labels.flatMap(({ key, words, places }) => {
    const place = places.find((one) => {
      const box = boxOf(one, words);
      return box.left >= 0 && box.right <= width && !taken.some((other) => meet(box, other));
    });
    if (!place) return [];
    taken.push(boxOf(place, words));
    return [{ key, words, ...place }];
  });
}
