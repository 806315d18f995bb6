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
  say,
} from '@water-clock/core';
import { Bars } from '../../shared/charts/Bars.tsx';
import { Patterns } from '../../shared/charts/patterns.tsx';
import { KindCard } from '../../visit/timerKind/KindCard.tsx';
import { KindNotes } from '../../visit/timerKind/KindNotes.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { PagedShelf, Shelves } from '../../data/api/library.ts';

function ReadRules({ document, today }: { readonly document: Rules; readonly today: EpochDay }) {
  const { clock, order } = usePreferences();
  return document.editions.map((edition) => (
    <section key={edition.from} className="stack">
      <h3>{say`In force from ${dateWords(parseDate(edition.from) ?? today, today, order)}`}</h3>
      <ul>
        {edition.clauses.map((clause, i) => (
          <li key={i}>
            <strong>{conditionWords(clause.when ?? {})}</strong>:{' '}
            {clause.noWatering
              ? say`no watering by timer`
              : allowedWords(clause, { on: today, clock, order })}
          </li>
        ))}
      </ul>
      {edition.clauses.length === 0 && <p>{say`No restrictions for any house.`}</p>}
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
        label={say`Minutes`}
        unit={say`min`}
        series={[say`per watering, rule of thumb`, say`a week for lawn in midsummer`]}
        bars={HEADS.map((head) => ({
          name: HEAD_WORDS[head],
          values: [document.heads[head].watering, document.heads[head].week],
        }))}
        words={(value) => say`${value} min`}
        file={document.name}
      />
      <Bars
        label={say`Through the year`}
        unit={say`percent of midsummer`}
        series={[say`percent`]}
        bars={document.months.map((percent, i) => ({ name: monthName(i + 1), values: [percent] }))}
        words={(value) => `${value} %`}
        file={say`${document.name} months`}
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
          { key: 'source', label: say`Source`, children: document.source },
          { key: 'latitude', label: say`Latitude`, children: document.latitude },
        ]}
      />
      <Bars
        label={say`Rain`}
        unit={say`a month`}
        series={[say`rain`]}
        bars={document.months.map(({ rainMm }, i) => ({
          name: monthName(i + 1),
          values: [rainMm],
        }))}
        words={(mm) => quantityWords(units, 'depth', mm)}
        file={say`${document.name} rain`}
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

/** A library document, read-only. */
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
