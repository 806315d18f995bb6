import { Button, Tag } from 'antd';
import {
  ALTERNATIVE_WORDS,
  minutesWords,
  parseDate,
  plural,
  quantityWords,
  say,
  stationWords,
  type AlternativeKind,
  type Brief,
  type EpochDay,
  type Plan,
  dateWords,
  timeWords,
  type Survey,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { PlanWeek } from '../../shared/charts/PlanWeek.tsx';
import type { Place } from '../../shared/charts/sun.ts';
import type { PlanResult, Present } from '../../data/workers/planning.ts';
import type { Sunrise } from '../steps/useBrief.ts';
import { litresAWeek, offNeed } from './facts.ts';

/** Litres, rounded as people say them. */
const LITRES_STEP = 10;

const CHOSEN = { outline: '3px solid var(--accent)', outlineOffset: -3 };

interface FactsProps {
  readonly plan: Plan;
  readonly brief: Brief;
  readonly survey: Survey;
}

/** Programs and start times in one line. */
function shapeWords(plan: Plan): string {
  const starts = plan.programs.reduce((sum, program) => sum + program.starts.length, 0);
  return `${plural(plan.programs.length, '# program', '# programs')}, ${plural(starts, '# start time', '# start times')}`;
}

/** A week's water, and stations that get too little or too much. */
function Facts({ plan, brief, survey }: FactsProps) {
  const { units } = usePreferences();
  const litres = litresAWeek(plan, survey);
  const off = offNeed(plan, brief);
  const [worst] = off;
  const percent = worst ? Math.round(Math.abs(worst.off) * 100) : 0;
  return (
    <>
      <span>
        {litres === null
          ? say`Litres not known`
          : say`${quantityWords(units, 'volume', Math.round(litres / LITRES_STEP) * LITRES_STEP)} a week`}
      </span>
      <span className={worst ? 'fault' : undefined}>
        {worst === undefined
          ? say`Every station within 10 %`
          : off.length > 1
            ? say`${off.length} stations over or short, up to ${percent} %`
            : worst.off < 0
              ? say`${stationWords(brief, worst.station)} ${percent} % short`
              : say`${stationWords(brief, worst.station)} ${percent} % over`}
      </span>
    </>
  );
}

/** Whether announced rules are kept. */
function Announced({ coming, today }: Pick<Present, 'coming'> & { readonly today: EpochDay }) {
  const { order } = usePreferences();
  return coming.map(({ from, keeps }) => {
    const date = dateWords(parseDate(from) ?? 0, today, order);
    return (
      <span key={from} className={keeps ? undefined : 'fault'}>
        {keeps ? say`Keeps the rules from ${date}` : say`Breaks the rules from ${date}`}
      </span>
    );
  });
}

function headroomWords({ verdict, headroom }: Omit<Present, 'coming'>): string {
  switch (verdict) {
    case 'overlap':
      return say`Programs overlap`;
    case 'incomplete':
      return say`Not complete`;
    case 'empty':
      return say`No watering yet`;
    case 'clear':
      return headroom === null ? say`No overlaps as set` : say`No overlaps up to ${headroom} %`;
  }
}

interface Props {
  readonly results: readonly PlanResult[];
  readonly chosen: AlternativeKind | undefined;
  readonly choose: (kind: AlternativeKind) => void;
  readonly plan: Plan;
  readonly brief: Brief;
  readonly survey: Survey;
  /** Null: not known yet. */
  readonly present: Present | null;
  readonly today: EpochDay;
  readonly place: Place;
  /** The sunrise meant by *Done by sunrise*; null: not known. */
  readonly sunrise: Sunrise | null;
}

/** The plans next to the current settings: a week of each, and three lines. Swiped on a phone. */
export function PlanCards(props: Props) {
  const { results, chosen, choose, plan, brief, survey, present, today, place, sunrise } = props;
  const { clock, order } = usePreferences();
  const week = { from: today, place, rules: brief.rules, mowing: brief.mowing?.weekdays };
  return (
    <div
      className="plan-cards"
      style={{ position: 'relative' }}
      role="group"
      aria-label={say`Plans`}
    >
      {results.map((result) =>
        result.plan ? (
          <Button
            className="plan-card stack near"
            key={result.kind}
            aria-pressed={result.kind === chosen}
            style={result.kind === chosen ? CHOSEN : undefined}
            onClick={() => choose(result.kind)}
          >
            <strong>{ALTERNATIVE_WORDS[result.kind]}</strong>
            <span className="soft">{shapeWords(result.plan)}</span>
            <PlanWeek plan={result.plan} {...week} />
            <Facts plan={result.plan} brief={brief} survey={survey} />
            <span>{headroomWords({ verdict: 'clear', headroom: result.headroom })}</span>
            {result.cost !== null && result.cost[1] > 0 && (
              <span className="fault">{say`${minutesWords(result.cost[1])} a week outside the hours`}</span>
            )}
            {result.kind === 'by-sunrise' && sunrise && (
              <span className="soft">{say`Earliest sunrise ${timeWords(sunrise.second, clock)}, ${dateWords(sunrise.day, sunrise.day, order)}`}</span>
            )}
            <Announced coming={result.coming} today={today} />
          </Button>
        ) : null,
      )}
      <div className="plan-card stack near">
        <span className="row near">
          <strong>{say`What is set now`}</strong>
          {present?.verdict === 'overlap' && <Tag color="error">{say`overlap`}</Tag>}
        </span>
        <span className="soft">{shapeWords(plan)}</span>
        <PlanWeek plan={plan} {...week} />
        <Facts plan={plan} brief={brief} survey={survey} />
        {present && (
          <span className={present.verdict === 'clear' ? undefined : 'fault'}>
            {headroomWords(present)}
          </span>
        )}
        {present && <Announced coming={present.coming} today={today} />}
      </div>
    </div>
  );
}
