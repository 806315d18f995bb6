import { Descriptions } from 'antd';
import {
  allowedWords,
  conditionWords,
  dateWords,
  HEAD_WORDS,
  monthName,
  parseDate,
  quantityWords,
  type ClimateDocument,
  type EpochDay,
  type HeadType,
  type MinutesTable,
  type Rules,
  type TimerKind,
} from '@water-clock/core';
import { Bars } from '../charts/Bars.tsx';
import { Patterns } from '../charts/patterns.tsx';
import { KindCard } from '../device/KindCard.tsx';
import { KindNotes } from '../device/KindNotes.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import type { PagedShelf, Shelves } from '../api/library.ts';

function ReadRules({ document, today }: { readonly document: Rules; readonly today: EpochDay }) {
  const { clock, order } = usePreferences();
  return document.editions.map((edition) => (
    <section key={edition.from} className="stack">
      <h3>In force from {dateWords(parseDate(edition.from) ?? today, today, order)}</h3>
      <ul>
        {edition.clauses.map((clause, i) => (
          <li key={i}>
            <strong>{conditionWords(clause.when ?? {})}</strong>:{' '}
            {clause.noWatering
              ? 'no watering by a timer'
              : allowedWords(clause, { on: today, clock, order })}
          </li>
        ))}
      </ul>
      {edition.clauses.length === 0 && <p>Every house is free.</p>}
      {edition.note && <p>{edition.note}</p>}
      {edition.source && <p className="soft">{edition.source}</p>}
    </section>
  ));
}

const HEADS = Object.keys(HEAD_WORDS) as readonly HeadType[];

function ReadMinutes({ document }: { readonly document: MinutesTable }) {
  return (
    <section className="stack">
      <p>
        {document.region}; {document.source}.
      </p>
      <Bars
        label="Minutes"
        unit="min"
        series={['a watering, by thumb', 'a week of lawn at the height of summer']}
        bars={HEADS.map((head) => ({
          name: HEAD_WORDS[head],
          values: [document.heads[head].watering, document.heads[head].week],
        }))}
        words={(value) => `${value} min`}
        file={document.name}
      />
      <Bars
        label="Through the year"
        unit="percent of the height of summer"
        series={['percent']}
        bars={document.months.map((percent, i) => ({ name: monthName(i + 1), values: [percent] }))}
        words={(value) => `${value} %`}
        file={`${document.name} months`}
      />
    </section>
  );
}

function ReadClimate({ document }: { readonly document: ClimateDocument }) {
  const { units } = usePreferences();
  return (
    <section className="stack">
      <Descriptions
        size="small"
        items={[
          { key: 'source', label: 'Source', children: document.source },
          { key: 'latitude', label: 'Latitude', children: document.latitude },
        ]}
      />
      <Bars
        label="Rain"
        unit="a month"
        series={['rain']}
        bars={document.months.map(({ rainMm }, i) => ({
          name: monthName(i + 1),
          values: [rainMm],
        }))}
        words={(mm) => quantityWords(units, 'depth', mm)}
        file={`${document.name} rain`}
      />
    </section>
  );
}

const ReadKind = ({ document }: { readonly document: TimerKind }) => (
  <section className="stack">
    <KindCard timer={document.timer} kind={document} />
    <KindNotes kind={document} />
  </section>
);

/** A document of the library as something to read. */
export function ReadDocument({
  document,
  today,
}: {
  readonly document: Shelves[PagedShelf];
  readonly today: EpochDay;
}) {
  return (
    <div className="read-document stack column">
      <Patterns />
      {'editions' in document && <ReadRules document={document} today={today} />}
      {'timer' in document && <ReadKind document={document} />}
      {'heads' in document && <ReadMinutes document={document} />}
      {'latitude' in document && <ReadClimate document={document} />}
    </div>
  );
}
