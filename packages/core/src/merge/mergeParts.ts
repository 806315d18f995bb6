/** Three-way merging of JSON values, fact by fact (`facts.ts`). */
import { ONE, type Part } from './facts.ts';

export type Side = 'mine' | 'theirs';

/** A fact that both sides changed differently. Absent values are undefined. */
export interface Clash {
  /** Its path: names of fields and entries, joined with `/`. */
  readonly at: string;
  readonly base: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}

type Fields = Readonly<Record<string, unknown>>;
const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Whether two JSON values are equal; an undefined field is absent. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((one, i) => same(one, b[i]));
  if (!isFields(a) || !isFields(b)) return false;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((key) => same(a[key], b[key]));
}

/** Name of an entry in a named list. */
const nameOfEntry = (entry: unknown, by: readonly string[]): string =>
  isFields(entry) ? by.map((key) => String(entry[key])).join(' ') : String(entry);

const listed = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

interface Three {
  readonly base: unknown;
  readonly mine: unknown;
  readonly theirs: unknown;
}

/** A merge in progress: the chosen side of each clash, and undecided clashes. */
class Merging {
  readonly open: Clash[] = [];
  constructor(private readonly choices: ReadonlyMap<string, Side>) {}

  merge(part: Part, at: string, three: Three): unknown {
    const { base, mine, theirs } = three;
    if (same(mine, theirs) || same(base, mine)) return theirs;
    if (same(base, theirs)) return mine;
    if (part.as === 'one') return this.decide(at, three);
    if (part.as === 'fields')
      // Removed on one side and changed on the other: there is nothing to merge.
      return isFields(mine) && isFields(theirs)
        ? this.fields(part, at, { base: isFields(base) ? base : {}, mine, theirs })
        : this.decide(at, three);
    const lists = { base: listed(base), mine: listed(mine), theirs: listed(theirs) };
    const merged = part.as === 'entries' ? entries(lists) : this.named(part, at, lists);
    // An absent list is an empty one.
    const isLeftOut = mine === undefined || theirs === undefined;
    return merged.length === 0 && isLeftOut ? undefined : merged;
  }

  private decide(at: string, three: Three): unknown {
    const side = this.choices.get(at);
    if (side === undefined) this.open.push({ at, ...three });
    return three[side ?? 'theirs'];
  }

  private fields(
    { of = {}, together = [] }: Extract<Part, { as: 'fields' }>,
    at: string,
    three: Readonly<Record<keyof Three, Fields>>,
  ): Fields {
    const { base, mine, theirs } = three;
    const merged: Record<string, unknown> = {};
    const grouped = new Set(together.flat());
    for (const key of new Set([theirs, mine, base].flatMap((side) => Object.keys(side)))) {
      if (grouped.has(key)) continue;
      const under = at === '' ? key : `${at}/${key}`;
      const value = this.merge(of[key] ?? ONE, under, {
        ...{ base: base[key], mine: mine[key], theirs: theirs[key] },
      });
      if (value !== undefined) merged[key] = value;
    }
    for (const group of together) {
      const [first = ''] = group;
      const pick = (side: Fields) =>
        Object.fromEntries(
          group.flatMap((key) => (side[key] === undefined ? [] : [[key, side[key]]])),
        );
      const value = this.merge(ONE, `${at}/${first}`, {
        ...{ base: pick(base), mine: pick(mine), theirs: pick(theirs) },
      });
      Object.assign(merged, value);
    }
    return merged;
  }

  private named(
    { by, of, sorted }: Extract<Part, { as: 'named' }>,
    at: string,
    lists: Readonly<Record<keyof Three, readonly unknown[]>>,
  ): unknown[] {
    const byName = (list: readonly unknown[]) =>
      new Map(list.map((entry) => [nameOfEntry(entry, by), entry]));
    const [base, mine, theirs] = [byName(lists.base), byName(lists.mine), byName(lists.theirs)];
    const merged = new Map<string, unknown>();
    for (const name of new Set([...theirs.keys(), ...mine.keys(), ...base.keys()])) {
      const three = { base: base.get(name), mine: mine.get(name), theirs: theirs.get(name) };
      const entry = this.merge(of, `${at}/${name}`, three);
      if (entry !== undefined) merged.set(name, entry);
    }
    const order = sorted
      ? [...merged.keys()].sort(byNumberOrName)
      : this.order(
          at,
          [...merged.keys()],
          [base, mine, theirs].map((side) => [...side.keys()]),
        );
    return order.map((name) => merged.get(name));
  }

  /** The order on which both sides still agree, as far as they know the names. */
  private order(at: string, names: readonly string[], sides: readonly string[][]): string[] {
    const [base = [], mine = [], theirs = []] = sides;
    const common = (list: readonly string[]) =>
      list.filter((name) => names.includes(name) && sides.every((side) => side.includes(name)));
    const leading = this.merge(ONE, `${at}/order`, {
      ...{ base: common(base), mine: common(mine), theirs: common(theirs) },
    });
    const [first, second] = same(leading, common(theirs)) ? [theirs, mine] : [mine, theirs];
    const order = first.filter((name) => names.includes(name));
    for (const name of second.filter((one) => names.includes(one) && !order.includes(one))) {
      const next = order.findIndex((one) => byNumberOrName(one, name) > 0);
      order.splice(next < 0 ? order.length : next, 0, name);
    }
    return order;
  }
}

const byNumberOrName = (a: string, b: string): number =>
  Number(a) - Number(b) || (a < b ? -1 : a > b ? 1 : 0);

/** What one side added to a list is added, and what it removed is removed. */
function entries({
  base,
  mine,
  theirs,
}: Readonly<Record<keyof Three, readonly unknown[]>>): unknown[] {
  const has = (list: readonly unknown[], entry: unknown) => list.some((one) => same(one, entry));
  return [
    ...theirs.filter((entry) => has(mine, entry) || !has(base, entry)),
    ...mine.filter((entry) => !has(theirs, entry) && !has(base, entry)),
  ];
}

/**
 * Merges two versions of one value. A clash takes its chosen side, otherwise theirs.
 *
 * @returns the clashes without a chosen side
 */
export function mergeParts<T>(
  part: Part,
  three: { readonly base: T; readonly mine: T; readonly theirs: T },
  choices: ReadonlyMap<string, Side> = new Map(),
): { readonly merged: T; readonly open: readonly Clash[] } {
  const merging = new Merging(choices);
  // Safe cast: each part comes from a side of the same type. The caller must validate the whole.
  return { merged: merging.merge(part, '', three) as T, open: merging.open };
}

/** Value of a fact by path; undefined: absent. */
export function valueAt(part: Part, value: unknown, at: string): unknown {
  let here: unknown = value;
  let as: Part = part;
  const names = at.split('/');
  while (names.length > 0) {
    // A name may contain a slash.
    const name = as.as === 'named' && as.of.as === 'one' ? names.join('/') : (names[0] ?? '');
    names.splice(0, as.as === 'named' && as.of.as === 'one' ? names.length : 1);
    if (as.as === 'named' && Array.isArray(here)) {
      const { by, of } = as;
      here = here.find((entry) => nameOfEntry(entry, by) === name);
      as = of;
    } else if (as.as === 'fields' && isFields(here)) {
      const group: readonly string[] = as.together?.find(([first]) => first === name) ?? [name];
      const fields: Fields = here;
      here = group.length > 1 ? group.map((key) => fields[key]) : fields[name];
      as = as.of?.[name] ?? ONE;
    } else return undefined;
  }
  return here;
}
