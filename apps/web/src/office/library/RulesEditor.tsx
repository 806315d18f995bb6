import { useState } from 'react';
import { Button, Checkbox, Input, Segmented } from 'antd';
import {
  allowedWords,
  conditionWords,
  isRoster,
  parseDate,
  rulesSentence,
  SUPPLIES,
  SUPPLY_WORDS,
  type EpochDay,
  type RosterKind,
  type Rules,
  type RulesClause,
  type RulesCondition,
  type RulesEdition,
  type Supply,
  say,
} from '@water-clock/core';
import { RosterEditor } from './RosterEditor.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { AllowedFields } from '../../shared/fields/AllowedFields.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';

const DIGITS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

const toggled = <T,>(list: readonly T[] | undefined, item: T, order: readonly T[]): readonly T[] =>
  order.filter((each) => (each === item) !== (list ?? []).includes(each));

/** A record without fields that are undefined or empty lists. */
const tidy = <T extends object>(record: { [K in keyof T]: T[K] | undefined }): T =>
  // Safe cast: only optional fields can be missing.
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

/** Which sites a clause is for, and what it allows. */
function ClauseEditor({ clause, name, change, today }: ClauseProps) {
  const { clock, order } = usePreferences();
  const { when = {} } = clause;
  const setWhen = (more: { [K in keyof RulesCondition]?: RulesCondition[K] | undefined }) => {
    const next = tidy<RulesCondition>({ ...when, ...more });
    const { when: _before, ...rest } = clause;
    change(Object.keys(next).length > 0 ? { ...rest, when: next } : rest);
  };
  const { when: _when, noWatering: _none, ...allowed } = clause;
  return (
    <Disclosure
      summary={
        <>
          <strong>{conditionWords(when)}</strong>:{' '}
          {clause.noWatering
            ? say`no watering by timer`
            : allowedWords(clause, { on: today, clock, order })}
        </>
      }
    >
      {() => (
        <fieldset className="aside stack">
          <legend className="hidden-but-read">{name}</legend>
          <div className="labelled">
            {say`Street numbers ending in`}
            <div className="days" role="group" aria-label={say`${name}: last digits`}>
              {DIGITS.map((digit) => (
                <Button
                  className="day"
                  key={digit}
                  aria-pressed={when.lastDigits?.includes(digit) ?? false}
                  onClick={() => setWhen({ lastDigits: toggled(when.lastDigits, digit, DIGITS) })}
                >
                  {digit}
                </Button>
              ))}
            </div>
          </div>
          <SelectField
            label={say`or odd / even`}
            value={when.parity ?? ''}
            options={[
              ['', say`any number`] as const,
              ['odd', say`odd numbers`] as const,
              ['even', say`even numbers`] as const,
            ]}
            pick={(value) =>
              setWhen({ parity: value === 'odd' || value === 'even' ? value : undefined })
            }
          />
          <div className="tiles near" role="group" aria-label={say`${name}: water from`}>
            {SUPPLIES.map((one) => (
              <Checkbox
                className="check"
                key={one}
                checked={when.supplies?.includes(one) ?? false}
                onChange={() =>
                  setWhen({ supplies: toggled<Supply>(when.supplies, one, SUPPLIES) })
                }
              >
                {SUPPLY_WORDS[one]}
              </Checkbox>
            ))}
            <span className="soft">{say`Any water source`}</span>
          </div>
          <Checkbox
            className="check"
            checked={clause.noWatering ?? false}
            onChange={(event) =>
              change({
                ...(clause.when ? { when: clause.when } : {}),
                ...(event.target.checked ? { noWatering: true } : {}),
              })
            }
          >{say`no watering by timer`}</Checkbox>
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
          <Button onClick={() => change(null)}>{say`Delete this rule`}</Button>
        </fieldset>
      )}
    </Disclosure>
  );
}

const replaced = <T,>(list: readonly T[], at: number, item: T | null): T[] =>
  list.flatMap((each, i) => (i === at ? (item === null ? [] : [item]) : [each]));

type Way = RosterKind | 'clauses';
const WAYS: readonly (readonly [Way, string])[] = [
  ['digits', say`By last digit`],
  ['parity', say`Odd and even`],
  ['clauses', say`As a list`],
];

/** A grid if the rules go by house number and it can show every clause; also for empty rules. */
function usualWay(edition: RulesEdition): Way {
  const { clauses } = edition;
  const goes = (by: 'lastDigits' | 'parity') => clauses.some(({ when }) => when?.[by]);
  if (goes('parity') && !goes('lastDigits') && isRoster(edition, 'parity')) return 'parity';
  const isNew = clauses.every((clause) => Object.keys(clause).length === 0);
  const byDigits = isNew || goes('lastDigits');
  return byDigits && isRoster(edition, 'digits') ? 'digits' : 'clauses';
}

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
  const [way, setWay] = useState(() => usualWay(edition));
  return (
    <section className="edition part stack">
      <div className="tiles fill of-150">
        <DateField
          label={say`In force from`}
          required
          value={edition.from}
          commit={(from) => parseDate(from) !== null && set({ from })}
        />
        <DateField
          label={say`New planting exempt until`}
          value={edition.newPlantingUntil ?? ''}
          commit={(date) => set({ newPlantingUntil: text(date) })}
        />
        <label className="labelled">
          {say`Source`}
          <Input
            value={edition.source ?? ''}
            maxLength={2000}
            onChange={({ target: { value } }) => set({ source: text(value) })}
          />
        </label>
        <label className="labelled">
          {say`Note`}
          <Input
            value={edition.note ?? ''}
            maxLength={2000}
            onChange={({ target: { value } }) => set({ note: text(value) })}
          />
        </label>
      </div>
      {(parseDate(edition.from) ?? today) < today && (
        <p className="soft">{say`This date is in the past. Sites are checked against these rules as soon as you save. A future date keeps the current rules until then.`}</p>
      )}
      <Segmented<Way>
        aria-label={say`Enter days`}
        options={WAYS.map(([value, label]) => ({ value, label }))}
        value={way}
        onChange={setWay}
      />
      {way !== 'clauses' && !isRoster(edition, way) && (
        <p className="caution">{say`A grid cannot show everything in the list. Your first change in the grid replaces the list.`}</p>
      )}
      {way !== 'clauses' && <RosterEditor edition={edition} kind={way} change={change} />}
      {way === 'clauses' && (
        <p className="soft">{say`The first rule that matches a house applies. A house with no match has no restrictions.`}</p>
      )}
      {(way === 'clauses' ? edition.clauses : []).map((clause, i) => (
        <ClauseEditor
          key={i}
          clause={clause}
          name={say`Rule ${i + 1}`}
          today={today}
          change={(next) => set({ clauses: replaced(edition.clauses, i, next) })}
        />
      ))}
      <div className="row near">
        {way === 'clauses' && (
          <Button
            onClick={() => set({ clauses: [...edition.clauses, {}] })}
          >{say`Add rule`}</Button>
        )}
        <Button
          onClick={() => change(null)}
        >{say`Delete rules in force from ${edition.from}`}</Button>
      </div>
    </section>
  );
}

interface Props {
  readonly document: Rules;
  readonly change: (document: Rules) => void;
  readonly today: EpochDay;
}

/** A district's rules: editions by date, and an address to try them on. */
export function RulesEditor({ document, change, today }: Props) {
  const { clock, order } = usePreferences();
  const [houseNumber, setHouseNumber] = useState('41');
  const [supply, setSupply] = useState<Supply>('mains');
  const { editions } = document;
  const last = editions.at(-1);
  return (
    <div className="library-form stack column">
      <label className="labelled">
        {say`Water authority`}
        <Input
          value={document.name}
          maxLength={200}
          onChange={({ target: { value } }) => change({ ...document, name: value })}
        />
      </label>
      <div className="try-rules row at-foot">
        <label className="labelled">
          {say`Test with number`}
          <Input value={houseNumber} onChange={({ target: { value } }) => setHouseNumber(value)} />
        </label>
        <SelectField
          label={say`with water from`}
          value={supply}
          options={SUPPLIES.map((one) => [one, SUPPLY_WORDS[one]] as const)}
          pick={(value) => setSupply(SUPPLIES.find((one) => one === value) ?? 'mains')}
        />
        <p role="status" className="rules-now large">
          {rulesSentence(document, { houseNumber, supply }, { on: today, clock, order })}
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
      >{say`Add rules for a later date`}</Button>
    </div>
  );
}

/** A year after a date, or January 1 of this year. */
function nextYear(date: string | undefined): string {
  if (date === undefined) return `${new Date().getFullYear()}-01-01`;
  const [year = '2000', ...rest] = date.split('-');
  const next = [String(Number(year) + 1), ...rest].join('-');
  return parseDate(next) === null ? `${Number(year) + 1}-03-01` : next;
}
