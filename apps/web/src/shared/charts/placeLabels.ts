/** Where the words on the strip stand, so that none is printed over another. No interface code. */

type Anchor = 'start' | 'middle' | 'end';

/** A place at which a label may stand: `x` is its beginning, middle or end, `y` its baseline. */
interface LabelPlace {
  readonly x: number;
  readonly y: number;
  readonly anchor: Anchor;
}

export interface Label {
  readonly key: string;
  readonly words: string;
  /** The best first. With none that is free, the label is left out. */
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

/** Width of a letter of the strip's type in pixels, rounded up. */
const LETTER = 7.6;
const ASCENT = 12;
const DESCENT = 4;
/** Pixels left free between two labels. */
const APART = 6;

function boxOf({ x, y, anchor }: LabelPlace, words: string): Box {
  const width = words.length * LETTER;
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
  return { left, right: left + width, top: y - ASCENT, bottom: y + DESCENT };
}

const meet = (a: Box, b: Box): boolean =>
  a.left < b.right + APART && b.left < a.right + APART && a.top < b.bottom && b.top < a.bottom;

/** Labels in the order of their weight, each at its first place that is inside the strip and clear of those before it. */
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
