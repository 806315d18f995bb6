/** SQL of the filters and sort orders of the timer list. The table timer_status is `st`, today's date there is `z`. */

export const FILTERS = {
  all: 'true',
  overlap: `st.verdict = 'overlap'`,
  breach: 'st.breaches > 0',
  supply: 'st.over_supply',
  coming: 'st.coming_day is not null',
  unset: `st.verdict in ('incomplete', 'empty')`,
  due: 'st.next_day < z.today + 7',
  'under-way': 'st.under_way',
} as const;
export type Filter = keyof typeof FILTERS;
// Safe cast: these are the entries of the table.
export const FILTER_WORDS = Object.keys(FILTERS) as Filter[];

const SORTS = {
  site: 'st.site_key',
  town: 'st.town',
  street: 'st.street_key',
  verdict: `array_position(array['overlap', 'breach', 'supply', 'incomplete', 'empty', 'clear'], st.verdict)`,
  stations: 'st.stations',
  headroom: 'st.headroom',
  trouble: 'st.trouble_day',
  battery: 'st.battery_day',
  last: 'st.last_visit',
  next: 'st.next_day',
} as const;
type Sort = keyof typeof SORTS;
export type SortWord = Sort | `-${Sort}`;
// Safe cast: each is a key of the table, with or without a sign.
export const SORT_WORDS = Object.keys(SORTS).flatMap((sort) => [sort, `-${sort}`]) as SortWord[];

/** Unknown values sort last in both directions; equal ones sort by site name. */
export function orderOf(word: SortWord): string {
  if (word === 'site') return 'st.site_key, st.id';
  const isDown = word.startsWith('-');
  // Safe cast: without its sign it is a key of the table.
  const sort = (isDown ? word.slice(1) : word) as Sort;
  return `${SORTS[sort]} ${isDown ? 'desc' : 'asc'} nulls last, st.site_key, st.id`;
}
