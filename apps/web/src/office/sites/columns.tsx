/** Columns of the site list. */
import type { ReactNode } from 'react';
import { Tag, type TableColumnType } from 'antd';
import { Link } from 'react-router';
import type { DateOrder } from '@water-clock/core';
import type { TimerLine } from '../../data/api/lines.ts';
import { VerdictMark } from '../../shared/charts/VerdictMark.tsx';
import { dateIn } from '../../app/platform/dateIn.ts';
import { WeekMini } from './WeekMini.tsx';
import { say } from '@water-clock/core';

const VERDICT_NAMES = {
  clear: say`No overlaps`,
  overlap: say`Overlap`,
  breach: say`Breaks rules`,
  supply: say`Too much flow`,
  incomplete: say`Not complete`,
  empty: say`Empty`,
} as const;

export function Name({ line: { id, name, site, ofSeveral } }: { readonly line: TimerLine }) {
  return (
    <>
      <Link className="plain heavy" to={`/timers/${id}`}>
        {site.name}
      </Link>
      {site.houseNumber && <span className="soft"> {say`No. ${site.houseNumber}`}</span>}
      <div className="soft">
        {ofSeveral && `${name}, `}
        <Link to={`/sites/${site.id}`}>{say`the house`}</Link>
      </div>
    </>
  );
}

export function VerdictOf({
  line,
}: {
  readonly line: Pick<TimerLine, 'verdict' | 'headline' | 'checked'>;
}) {
  const { verdict, headline, checked } = line;
  if (verdict === null) return <span className="soft">{headline}</span>;
  return (
    <span className={`row in-line near said verdict-${verdict}`} title={headline}>
      <VerdictMark verdict={verdict} size={22} />
      <span>
        <strong>{VERDICT_NAMES[verdict]}</strong>
        <span className="soft small below">{headline}</span>
        {!checked && <Tag>{say`rechecking`}</Tag>}
      </span>
    </span>
  );
}

/** Columns after the site, in order; the server uses the same keys. */
export const COLUMN_NAMES = {
  town: say`Town`,
  street: say`Street`,
  verdict: say`Verdict`,
  week: say`Week`,
  stations: say`Stations`,
  headroom: say`Highest percent`,
  trouble: say`First problem`,
  battery: say`Battery due`,
  person: say`Technician`,
  last: say`Last visit`,
  next: say`Next`,
} as const;
export type ColumnName = keyof typeof COLUMN_NAMES;
// Safe cast: these are the entries of the table.
export const COLUMNS = Object.keys(COLUMN_NAMES) as ColumnName[];
export const USUAL: readonly ColumnName[] = ['town', 'verdict', 'week', 'stations', 'last', 'next'];
const UNSORTED: readonly ColumnName[] = ['week', 'person'];

type Content = (line: TimerLine) => ReactNode;

/**
 * @param sort sorted column, with a minus for descending
 * @param next content of the last column
 */
export function columnsOf(
  chosen: readonly ColumnName[],
  sort: string,
  order: DateOrder,
  next: Content,
): TableColumnType<TimerLine>[] {
  const content: Record<ColumnName, Content> = {
    town: ({ town }) => town,
    street: ({ site }) => site.street,
    verdict: (line) => <VerdictOf line={line} />,
    week: ({ week }) => <WeekMini week={week} />,
    stations: ({ stations }) => stations,
    headroom: ({ headroomPercent }) => headroomPercent !== null && `${headroomPercent} %`,
    trouble: ({ trouble }) => dateIn(trouble, order),
    battery: ({ battery }) => dateIn(battery, order),
    person: ({ person }) => person?.name,
    last: ({ lastVisit }) => dateIn(lastVisit, order),
    next,
  };
  const sorted = (key: string): TableColumnType<TimerLine> => ({
    key,
    sorter: true,
    sortOrder: sort === key ? 'ascend' : sort === `-${key}` ? 'descend' : null,
  });
  return [
    { title: say`Site`, ...sorted('site'), render: (_, line) => <Name line={line} /> },
    ...COLUMNS.filter((name) => chosen.includes(name)).map((name): TableColumnType<TimerLine> => ({
      title: COLUMN_NAMES[name],
      ...(UNSORTED.includes(name) ? { key: name } : sorted(name)),
      ...(name === 'week' ? { width: 165 } : {}),
      ...(name === 'stations' || name === 'headroom' ? { align: 'right' as const } : {}),
      render: (_, line) => content[name](line),
    })),
  ];
}
