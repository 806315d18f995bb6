import { useQuery } from '@tanstack/react-query';
import {
  attempt,
  check,
  dateWords,
  DEFECT_WORDS,
  findingSentence,
  parseDate,
  nextVisitWords,
  RUNG_WORDS,
  startWords,
  TEST_WORDS,
  undoneSentence,
  WIRING_WORDS,
  type Defect,
  type DateOrder,
  type Plan,
  say,
} from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { PhotoRow } from '../../shared/photos/PhotoRow.tsx';
import { Comments } from './Comments.tsx';
import { loadVisit, visitKeys, type VisitSummary } from '../../data/api/visits.ts';

export const dayOf = (moment: string, today: number, order: DateOrder) =>
  dateWords(parseDate(moment.slice(0, 10)) ?? today, today, order);

/** The checks of a saved state, as of its day. */
function FindingsOf({
  name,
  plan,
  day,
}: {
  readonly name: string;
  readonly plan: Plan;
  readonly day: string;
}) {
  const { clock, order } = usePreferences();
  const on = parseDate(day.slice(0, 10)) ?? 0;
  const worked = attempt(() => check(plan, on).findings);
  const findings = worked.ok ? worked.value.filter(({ severity }) => severity !== 'note') : [];
  return (
    <>
      <strong>{name}</strong>
      {findings.length === 0 ? (
        <p className="soft">{say`No findings.`}</p>
      ) : (
        <ul className="points">
          {findings.map((finding, i) => (
            <li key={i}>{findingSentence(finding, { on, clock, order })}</li>
          ))}
        </ul>
      )}
    </>
  );
}

function Findings({ id }: { readonly id: string }) {
  const whole = useQuery({
    queryKey: visitKeys.one(id),
    queryFn: () => loadVisit(id),
    staleTime: Infinity,
  });
  if (!whole.data)
    return <p className="soft">{whole.isError ? say`Not available.` : say`One moment …`}</p>;
  const { asFound, asLeft } = whole.data.visit;
  return (
    <>
      {asFound && <FindingsOf name={say`As found`} plan={asFound.plan} day={asFound.at} />}
      <FindingsOf name={say`As left`} plan={asLeft.plan} day={asLeft.at} />
    </>
  );
}

/** A closed visit: who, when, found, done, left, faults, next visit. */
export function LogEntry({
  entry,
  today,
}: {
  readonly entry: VisitSummary;
  readonly today: number;
}) {
  const { clock, order } = usePreferences();
  const { id, visit, by } = entry;
  const faultsText = (isOpen: boolean) =>
    visit.faults
      .filter(({ open }) => open === isOpen)
      .map(
        ({ station, fault }) =>
          // Safe cast for what was noted here; other programs' texts are shown as they are.
          say`station ${station}, ${(DEFECT_WORDS[fault as Defect] ?? fault).toLowerCase()}`,
      )
      .join('; ');
  const tested = (visit.tests ?? []).filter(({ result }) => result !== undefined);
  const ran = tested.filter(({ result }) => result === 'waters').length;
  const tests = (visit.tests ?? []).filter(
    ({ result, wiring, reading }) =>
      (result && result !== 'waters') || (wiring && wiring !== 'good') || reading,
  );
  const lines: readonly (readonly [string, string | undefined])[] = [
    [say`Complaint`, visit.complaint],
    [say`Found`, visit.cause],
    [say`Done`, visit.done],
    [say`Errors caught by read-back`, visit.keyIn?.slips ? String(visit.keyIn.slips) : undefined],
    [
      say`Tested`,
      [
        ...(tested.length > 0 ? [say`${ran} of ${tested.length} ran well`] : []),
        ...tests.map(({ station, result, wiring, reading }) =>
          [
            say`station ${station}`,
            result && TEST_WORDS[result].toLowerCase(),
            wiring && WIRING_WORDS[wiring].toLowerCase(),
            reading,
          ]
            .filter(Boolean)
            .join(' '),
        ),
      ].join('; '),
    ],
    [
      say`Troubleshooting`,
      (visit.ladders ?? [])
        .map(
          ({ station, rung, good, reading }) =>
            say`station ${station}, ${RUNG_WORDS[rung].toLowerCase()}: ${good ? say`good` : say`bad`}${reading ? ` (${reading})` : ''}`,
        )
        .join('; '),
    ],
    [say`Open faults`, faultsText(true)],
    [say`Repaired`, faultsText(false)],
    [say`Not done`, (visit.undone ?? []).map(undoneSentence).join(' ')],
    [say`Minutes spent`, visit.minutesSpent === undefined ? undefined : String(visit.minutesSpent)],
    [
      say`Next`,
      visit.next
        .map((next) => `${dayOf(next.date, today, order)}, ${nextVisitWords(next)}`)
        .join('; '),
    ],
  ];
  return (
    <article className="log-entry stack near">
      <h2>
        {say`${dayOf(visit.began, today, order)}, ${startWords(visit.began.slice(11), clock)} to ${startWords(visit.closed.slice(11), clock)}`}{' '}
        <span className="soft">{by}</span>
      </h2>
      <ul className="points">
        {lines.map(([name, text]) => text && <li key={name}>{`${name}: ${text}`}</li>)}
      </ul>
      {(visit.photos ?? []).length > 0 && (
        <PhotoRow label={say`Visit photos`} photos={visit.photos ?? []} />
      )}
      <Disclosure className="log-findings" summary={say`Findings, as found and as left`}>
        {() => <Findings id={id} />}
      </Disclosure>
      <Comments visitId={id} today={today} />
    </article>
  );
}
