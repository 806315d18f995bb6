import { Fragment, type KeyboardEvent } from 'react';
import { Button, Checkbox } from 'antd';
import {
  rosterOf,
  rosterRows,
  SUPPLIES,
  SUPPLY_WORDS,
  WEEKDAYS,
  weekdayName,
  withRoster,
  type RosterKind,
  type RosterTable,
  type RulesEdition,
  type Weekday,
  say,
} from '@water-clock/core';
import { useScreen } from '../../app/frame/useScreen.ts';
import { AllowedFields } from '../../shared/fields/AllowedFields.tsx';

interface TableProps {
  readonly table: RosterTable;
  readonly kind: RosterKind;
  readonly name: string;
  readonly change: (table: RosterTable) => void;
}

const ROW_WORDS: Readonly<Record<string, string>> = {
  odd: say`Odd numbers`,
  even: say`Even numbers`,
};
const rowWords = (row: string) => ROW_WORDS[row] ?? say`Ends in ${row}`;

const inOrder = (days: readonly Weekday[]) => WEEKDAYS.filter((one) => days.includes(one));

/** Rows by weekdays, as in a spreadsheet: arrows move, Space or a press sets a day, Ctrl-D copies the row above. */
function RosterGrid({ table, kind, name, change }: TableProps) {
  // On a phone the day names are out of sight.
  const isPhone = useScreen() === 'phone';
  const rows = rosterRows(kind);
  const { days } = table;
  const set = (row: number, next: readonly Weekday[]) =>
    change({ ...table, days: days.map((one, i) => (i === row ? inOrder(next) : one)) });
  const fillDown = (from: number) =>
    change({ ...table, days: days.map((one, i) => (i > from ? (days[from] ?? one) : one)) });
  const onKeyDown = (event: KeyboardEvent<HTMLElement>, row: number, column: number) => {
    const { key } = event;
    if (key === 'd' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      if (row > 0) set(row, days[row - 1] ?? []);
      return;
    }
    const [down, right] =
      key === 'ArrowDown'
        ? [1, 0]
        : key === 'ArrowUp'
          ? [-1, 0]
          : key === 'ArrowRight'
            ? [0, 1]
            : key === 'ArrowLeft'
              ? [0, -1]
              : [0, 0];
    if (down === 0 && right === 0) return;
    event.preventDefault();
    event.currentTarget
      .closest('[role="grid"]')
      ?.querySelector<HTMLElement>(`[data-cell="${row + down} ${column + right}"]`)
      ?.focus();
  };
  return (
    <div className="roster-part">
      <div className="stack near" role="grid" aria-label={name}>
        <div role="row" className="roster-row">
          <span role="columnheader">
            <span className="hidden-but-read">{say`Street numbers`}</span>
          </span>
          {WEEKDAYS.map((weekday, i) => (
            <span role="columnheader" key={weekday}>
              {weekdayName(i)}
            </span>
          ))}
          <span role="columnheader">
            <span className="hidden-but-read">{say`Fill down`}</span>
          </span>
        </div>
        {rows.map((row, at) => (
          <div role="row" className="roster-row" key={row}>
            <span role="rowheader">{rowWords(row)}</span>
            {WEEKDAYS.map((weekday, column) => {
              const own = days[at] ?? [];
              const isOn = own.includes(weekday);
              return (
                <span role="gridcell" key={weekday}>
                  <Button
                    className="day"
                    data-cell={`${at} ${column}`}
                    aria-label={`${rowWords(row)}, ${weekdayName(column)}`}
                    aria-pressed={isOn}
                    onKeyDown={(event) => onKeyDown(event, at, column)}
                    onClick={() =>
                      set(at, isOn ? own.filter((one) => one !== weekday) : [...own, weekday])
                    }
                  >
                    {isPhone ? weekdayName(column) : isOn ? '✓' : ''}
                  </Button>
                </span>
              );
            })}
            <span role="gridcell">
              {at + 1 < rows.length && (
                <Button
                  type="text"
                  aria-label={say`Copy ${rowWords(row).toLowerCase()} to the rows below`}
                  title={say`Copy to the rows below`}
                  onClick={() => fillDown(at)}
                >
                  ↓
                </Button>
              )}
            </span>
          </div>
        ))}
      </div>
      <div className="row near">
        <Button
          type="text"
          onClick={() => change({ ...table, days: days.map((): Weekday[] => []) })}
        >{say`Clear all days`}</Button>
      </div>
      {days.some((own) => own.length === 0) && (
        <p className="soft">{say`A row without days means no watering by timer.`}</p>
      )}
    </div>
  );
}

interface Props {
  readonly edition: RulesEdition;
  readonly kind: RosterKind;
  readonly change: (edition: RulesEdition) => void;
}

/** Watering rules as a grid: last digit, or odd and even, by weekday; one grid for each supply. */
export function RosterEditor({ edition, kind, change }: Props) {
  const { tables } = rosterOf(edition, kind);
  const put = (next: readonly RosterTable[]) => change(withRoster(edition, { kind, tables: next }));
  const named = tables.flatMap(({ supplies }) => supplies);
  const free = SUPPLIES.filter((one) => !named.includes(one));
  const last = tables.at(-1);
  return (
    <div className="stack">
      {tables.map((table, i) => {
        const set = (next: RosterTable) => put(tables.map((one, at) => (at === i ? next : one)));
        const water =
          table.supplies.length === 0
            ? named.length > 0
              ? say`any other water`
              : say`any water`
            : table.supplies.map((one) => SUPPLY_WORDS[one]).join(', ');
        return (
          <Fragment key={table.supplies.join(' ')}>
            <h2 className="roster-title">{say`With ${water}`}</h2>
            {table.supplies.length > 0 && (
              <div
                className="tiles near"
                role="group"
                aria-label={say`Water source of table ${i + 1}`}
              >
                {SUPPLIES.map((one) => (
                  <Checkbox
                    className="check"
                    key={one}
                    checked={table.supplies.includes(one)}
                    disabled={!table.supplies.includes(one) && !free.includes(one)}
                    onChange={({ target }) => {
                      const supplies = SUPPLIES.filter((each) =>
                        each === one ? target.checked : table.supplies.includes(each),
                      );
                      put(
                        supplies.length > 0
                          ? tables.map((each, at) => (at === i ? { ...table, supplies } : each))
                          : tables.filter((_, at) => at !== i),
                      );
                    }}
                  >
                    {SUPPLY_WORDS[one]}
                  </Checkbox>
                ))}
              </div>
            )}
            <RosterGrid table={table} kind={kind} name={say`Days with ${water}`} change={set} />
            <AllowedFields
              withoutDays
              name={say`With ${water}`}
              rules={table.rest}
              change={(rest) => {
                set({ ...table, rest });
                return null;
              }}
            />
          </Fragment>
        );
      })}
      {free.length > 1 && last && (
        <div className="row near">
          {free.map((one) => (
            <Button key={one} onClick={() => put([{ ...last, supplies: [one] }, ...tables])}>
              {say`Different days for ${SUPPLY_WORDS[one]}`}
            </Button>
          ))}
        </div>
      )}
    </div>
  );
}
