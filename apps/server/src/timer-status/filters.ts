/** SQL of the filters and the orders of the list of timers: the table timer_status as `st`, and today there `z`. */

export const FILTERS = {
  all: 'true',
  overlap: `st.verdict = 'overlap'`,
  breach: `st.verdict = 'breach'`,
  coming: 'st.coming_day is not null',
  unset: `st.verdict in ('incomplete', 'empty')`,
  due: 'st.next_day < z.today + 7',
  'under-way': 'st.under_way',
} as const;
export type Filter = keyof typeof FILTERS;
// The cast holds: they are the entries of the table.
export const FILTER_WORDS = Object.keys(FILTERS) as Filter[];

const SORTS = {
  site: 'st.site_key',
  town: 'st.town',
  street: 'st.street_key',
  verdict: `array_position(array['overlap', 'breach', 'incomplete', 'empty', 'clear'], st.verdict)`,
  stations: 'st.stations',
  headroom: 'st.headroom',
  trouble: 'st.trouble_day',
  battery: 'st.battery_day',
  last: 'st.last_visit',
  next: 'st.next_day',
} as const;
type Sort = keyof typeof SORTS;
export type SortWord = Sort | `-${Sort}`;
// The cast holds: each is a word of the table, with or without a sign.
export const SORT_WORDS = Object.keys(SORTS).flatMap((sort) => [sort, `-${sort}`]) as SortWord[];

/** What cannot be told stands last, whichever way it is sorted; houses by name within. */
export function orderOf(word: SortWord): string {
  if (word === 'site') return 'st.site_key, st.id';
  const isDown = word.startsWith('-');
  // The cast holds: without its sign it is a word of the table.
  const sort = (isDown ? word.slice(1) : word) as Sort;
  return `${SORTS[sort]} ${isDown ? 'desc' : 'asc'} nulls last, st.site_key, st.id`;
}
