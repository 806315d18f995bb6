import { useState } from 'react';
import { Button } from 'antd';
import {
  LACKING_WORDS,
  listed,
  SCHOOL_WORDS,
  SCHOOLS,
  type School,
  type StationMinutes,
  say,
} from '@water-clock/core';
import { SideDrawer } from '../../app/frame/SideDrawer.tsx';
import type { StepProps } from '../steps/stepProps.ts';
import { minutesText, SchoolDots } from './SchoolDots.tsx';
import { StationSteps } from './StationSteps.tsx';

/** Where a station's number comes from, or what is missing. */
function sourceWords({ answers, overruled, school, weeklySeconds }: StationMinutes): string {
  if (overruled) return say`your own value`;
  const words = SCHOOL_WORDS[school].toLowerCase();
  return weeklySeconds === null
    ? say`${words} needs ${listed(answers[school].lacking.map((one) => LACKING_WORDS[one]))}`
    : words;
}

/** A row for each station: the three methods, the chosen number, and why. */
export function StationMinutesRows({ plan, survey, today, editor, minutes }: StepProps) {
  const [open, setOpen] = useState<number | null>(null);
  const nameOf = (number: number) =>
    plan.stations.find((station) => station.number === number)?.name ?? '';
  const choose = (number: number) => (school: School) =>
    editor.commit({
      type: 'note-station',
      station: number,
      fields: { school: school === (survey.school ?? 'balance') ? null : school },
    });
  const { stations } = minutes;
  const most = Math.max(
    0,
    ...stations.flatMap(({ answers, weeklySeconds }) => [
      weeklySeconds ?? 0,
      ...SCHOOLS.map((school) => answers[school].weeklySeconds ?? 0),
    ]),
  );
  const total = stations.reduce((sum, { weeklySeconds }) => sum + (weeklySeconds ?? 0), 0);
  const opened = stations.find(({ number }) => number === open);
  return (
    <section className="minutes-of-stations">
      <h2>{say`Minutes a week at 100 %`}</h2>
      <ol className="minute-rows list ruled">
        {stations.map((one) => (
          <li key={one.number} className={open === one.number ? 'minute-row-open' : undefined}>
            <b className="large">{one.number}</b>
            <span className="minute-name">{nameOf(one.number)}</span>
            <SchoolDots minutes={one} most={most} choose={choose(one.number)} />
            <span>
              <strong className="large">{minutesText(one.weeklySeconds)}</strong>
              {one.weeklySeconds !== null && ' min'}
              <span className="soft small below">{sourceWords(one)}</span>
            </span>
            <Button
              aria-expanded={open === one.number}
              onClick={() => setOpen(open === one.number ? null : one.number)}
            >
              {say`Why`}
              <span className="hidden-but-read"> {say`station ${one.number}`}</span>
            </Button>
          </li>
        ))}
      </ol>
      <p>
        {say`Together`} <strong>{say`${Math.round(total / 60)} min`}</strong>
      </p>
      <SideDrawer
        title={opened ? `${opened.number} ${nameOf(opened.number)}`.trim() : ''}
        open={opened !== undefined}
        close={() => setOpen(null)}
      >
        {opened && (
          <>
            <p className="soft">
              {say`${minutesText(opened.weeklySeconds)} min a week: ${sourceWords(opened)}`}
            </p>
            <StationSteps
              today={today}
              key={opened.number}
              minutes={opened}
              survey={survey}
              editor={editor}
              choose={choose(opened.number)}
            />
          </>
        )}
      </SideDrawer>
    </section>
  );
}
