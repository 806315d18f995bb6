import { useState } from 'react';
import { Button } from 'antd';
import {
  allowedWords,
  conditionWords,
  parseDate,
  rulesSentence,
  SUPPLIES,
  SUPPLY_WORDS,
  type EpochDay,
  type Rules,
  type RulesClause,
  type RulesCondition,
  type RulesEdition,
  type Supply,
} from '@water-clock/core';
import { Disclosure } from '../fields/Disclosure.tsx';
import { AllowedFields } from '../fields/AllowedFields.tsx';
import { usePreferences } from '../platform/preferences.tsx';

const DIGITS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

const toggled = <T,>(list: readonly T[] | undefined, item: T, order: readonly T[]): readonly T[] =>
  order.filter((each) => (each === item) !== (list ?? []).includes(each));

/** A record without the fields whose value is undefined or an empty list. */
const tidy = <T extends object>(record: { [K in keyof T]: T[K] | undefined }): T =>
  // The cast holds because only optional fields can be without a value.
  Object.fromEntries(
    Object.entries(record).filter(
      ([, value]) => value !== undefined && !(Array.isArray(value) && value.length === 0),
    ),
  ) as T;

interface ClauseProps {
  readonly clause: RulesClause;
  readonly name: string;
  readonly change: (clause: RulesClause | null) => void;
  readonly today: EpochDay;
}

/** Which houses a clause is about, and what they may do. */
function ClauseEditor({ clause, name, change, today }: ClauseProps) {
  const { clock } = usePreferences();
  const { when = {} } = clause;
  const setWhen = (more: { [K in keyof RulesCondition]?: RulesCondition[K] | undefined }) => {
    const next = tidy<RulesCondition>({ ...when, ...more });
    const { when: _before, ...rest } = clause;
    change(Object.keys(next).length > 0 ? { ...rest, when: next } : rest);
  };
  const { when: _when, noWatering: _none, ...allowed } = clause;
  return (
    <Disclosure
      className="clause-line"
      summary={
        <>
          <strong>{conditionWords(when)}</strong>:{' '}
          {clause.noWatering
            ? 'no watering by a timer'
            : allowedWords(clause, { on: today, clock })}
        </>
      }
    >
      {() => (
        <fieldset className="clause">
          <legend className="hidden-but-read">{name}</legend>
          <div className="labelled">
            Street numbers that end in
            <div className="days" role="group" aria-label={`${name}: last digits`}>
              {DIGITS.map((digit) => (
                <button
                  key={digit}
                  type="button"
                  className="day"
                  aria-pressed={when.lastDigits?.includes(digit) ?? false}
                  onClick={() => setWhen({ lastDigits: toggled(when.lastDigits, digit, DIGITS) })}
                >
                  {digit}
                </button>
              ))}
            </div>
          </div>
          <label className="labelled">
            or by parity
            <select
              className="field"
              value={when.parity ?? ''}
              onChange={({ target: { value } }) =>
                setWhen({ parity: value === 'odd' || value === 'even' ? value : undefined })
              }
            >
              <option value="">any number</option>
              <option value="odd">odd numbers</option>
              <option value="even">even numbers</option>
            </select>
          </label>
          <div className="switches" role="group" aria-label={`${name}: water from`}>
            {SUPPLIES.map((one) => (
              <label key={one} className="check">
                <input
                  type="checkbox"
                  checked={when.supplies?.includes(one) ?? false}
                  onChange={() =>
                    setWhen({ supplies: toggled<Supply>(when.supplies, one, SUPPLIES) })
                  }
                />
                {SUPPLY_WORDS[one]}
              </label>
            ))}
            <span className="soft">none chosen: whatever the water</span>
          </div>
          <label className="check">
            <input
              type="checkbox"
              checked={clause.noWatering ?? false}
              onChange={(event) =>
                change({
                  ...(clause.when ? { when: clause.when } : {}),
                  ...(event.target.checked ? { noWatering: true } : {}),
                })
              }
            />
            no watering by a timer
          </label>
          {clause.noWatering !== true && (
            <AllowedFields
              name={name}
              rules={allowed}
              change={(rules) => {
                change(clause.when ? { when: clause.when, ...rules } : rules);
                return null;
              }}
            />
          )}
          <button type="button" className="plain-button" onClick={() => change(null)}>
            Take this clause out
          </button>
        </fieldset>
      )}
    </Disclosure>
  );
}

const replaced = <T,>(list: readonly T[], at: number, item: T | null): T[] =>
  list.flatMap((each, i) => (i === at ? (item === null ? [] : [item]) : [each]));

function EditionEditor({
  edition,
  change,
  today,
}: {
  readonly edition: RulesEdition;
  readonly change: (edition: RulesEdition | null) => void;
  readonly today: EpochDay;
}) {
  const set = (more: { [K in keyof RulesEdition]?: RulesEdition[K] | undefined }) => {
    const { clauses, ...rest } = { ...edition, ...more };
    change({
      ...tidy<Omit<RulesEdition, 'clauses'>>(rest),
      clauses: clauses ?? [],
    });
  };
  const text = (value: string) => (value.trim() === '' ? undefined : value);
  return (
    <section className="edition">
      <div className="tool-fields">
        <label className="labelled">
          In force from
          <input
            type="date"
            className="field"
            value={edition.from}
            onChange={({ target: { value } }) => parseDate(value) !== null && set({ from: value })}
          />
        </label>
        <label className="labelled">
          New planting is free until
          <input
            type="date"
            className="field"
            value={edition.newPlantingUntil ?? ''}
            onChange={({ target: { value } }) => set({ newPlantingUntil: text(value) })}
          />
        </label>
        <label className="labelled">
          Source
          <input
            className="field"
            value={edition.source ?? ''}
            maxLength={2000}
            onChange={({ target: { value } }) => set({ source: text(value) })}
          />
        </label>
        <label className="labelled">
          Note
          <input
            className="field"
            value={edition.note ?? ''}
            maxLength={2000}
            onChange={({ target: { value } }) => set({ note: text(value) })}
          />
        </label>
      </div>
      <p className="soft">
        The first clause that is about a house holds for it; a house that none is about is free.
      </p>
      {edition.clauses.map((clause, i) => (
        <ClauseEditor
          key={i}
          clause={clause}
          name={`Clause ${i + 1}`}
          today={today}
          change={(next) => set({ clauses: replaced(edition.clauses, i, next) })}
        />
      ))}
      <div className="chips-row">
        <Button onClick={() => set({ clauses: [...edition.clauses, {}] })}>Add a clause</Button>
        <Button onClick={() => change(null)}>Take out what is in force from {edition.from}</Button>
      </div>
    </section>
  );
}

interface Props {
  readonly document: Rules;
  readonly change: (document: Rules) => void;
  readonly today: EpochDay;
}

/** The rules of a district: editions by the date from which they hold, and a house to try them on. */
export function RulesEditor({ document, change, today }: Props) {
  const { clock } = usePreferences();
  const [houseNumber, setHouseNumber] = useState('41');
  const [supply, setSupply] = useState<Supply>('mains');
  const { editions } = document;
  const last = editions.at(-1);
  return (
    <div className="library-form">
      <label className="labelled">
        Whose rules
        <input
          className="field"
          value={document.name}
          maxLength={200}
          onChange={({ target: { value } }) => change({ ...document, name: value })}
        />
      </label>
      <div className="try-rules">
        <label className="labelled">
          Try it on number
          <input
            className="field"
            value={houseNumber}
            onChange={({ target: { value } }) => setHouseNumber(value)}
          />
        </label>
        <label className="labelled">
          with water from
          <select
            className="field"
            value={supply}
            onChange={({ target: { value } }) =>
              setSupply(SUPPLIES.find((one) => one === value) ?? 'mains')
            }
          >
            {SUPPLIES.map((one) => (
              <option key={one} value={one}>
                {SUPPLY_WORDS[one]}
              </option>
            ))}
          </select>
        </label>
        <p role="status" className="rules-now">
          {rulesSentence(document, { houseNumber, supply }, { on: today, clock })}
        </p>
      </div>
      {editions.map((edition, i) => (
        <EditionEditor
          key={i}
          edition={edition}
          today={today}
          change={(next) => change({ ...document, editions: replaced(editions, i, next) })}
        />
      ))}
      <Button
        onClick={() =>
          change({
            ...document,
            editions: [...editions, { ...(last ?? { clauses: [] }), from: nextYear(last?.from) }],
          })
        }
      >
        Add what holds from a later date
      </Button>
    </div>
  );
}

/** A year after a date, or the first of January of this one. */
function nextYear(date: string | undefined): string {
  if (date === undefined) return `${new Date().getFullYear()}-01-01`;
  const [year = '2000', ...rest] = date.split('-');
  const next = [String(Number(year) + 1), ...rest].join('-');
  return parseDate(next) === null ? `${Number(year) + 1}-03-01` : next;
}
