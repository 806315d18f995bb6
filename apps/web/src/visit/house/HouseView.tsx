import { useState } from 'react';
import { Button } from 'antd';
import { Link } from 'react-router';
import { allowedWords, dueVisits, rulesSentence, visitSentence, say } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { commitWords } from '../../data/editor/commitWords.ts';
import { AllowedDays } from './AllowedDays.tsx';
import { SiteDetails } from './SiteDetails.tsx';
import { AllowedFields } from '../../shared/fields/AllowedFields.tsx';
import { Choice } from '../../shared/fields/Choice.tsx';
import { LabelledTime } from '../../shared/fields/LabelledTime.tsx';
import { RULES_FAILED } from '../steps/useVisitBasis.ts';
import type { StepProps } from '../steps/stepProps.ts';

/** What the rules allow today, and the date on which that changes. */
function RulesNow({ rules, rulesState, site, survey, today }: StepProps) {
  const { clock, order } = usePreferences();
  const speech = { on: today, clock, order };
  if (survey.rules)
    return (
      <p className="rules-now large">
        <strong>{say`Set for this site:`}</strong> {allowedWords(survey.rules, speech)}.
      </p>
    );
  if (rulesState === 'pending')
    return <p className="rules-now large soft">{say`Loading the rules …`}</p>;
  if (rulesState === 'failed') return <p className="rules-now large fault">{RULES_FAILED}</p>;
  if (!rules)
    return (
      <p className="rules-now large">
        {site.rulesId === null
          ? say`No rules are chosen yet. Choose local rules below.`
          : say`The chosen rules are no longer in the library. Choose local rules below.`}{' '}
        <Link to="/library/rules">{say`Add rules in the library`}</Link>
      </p>
    );
  return (
    <p className="rules-now large">
      <strong>{rules.name}.</strong> {rulesSentence(rules, site, speech)}
    </p>
  );
}

/** Rules for this site only, if no library document fits. */
function OwnRules({ survey, editor }: StepProps) {
  return (
    <div className="aside stack">
      <AllowedFields
        name={say`This site`}
        rules={survey.rules ?? {}}
        change={(rules) => commitWords(editor, { type: 'note', fields: { rules } })}
      />
      <Button
        onClick={() => editor.commit({ type: 'note', fields: { rules: null } })}
      >{say`Use library rules`}</Button>
    </div>
  );
}

const DRY_FROM_USUAL = '18:00';

const DRY_WORDS = {
  'mowing-day': say`on the mowing day`,
  evening: say`from the evening before`,
  'day-before': say`all of the day before, too`,
};

/** Time from which the lawn must be dry for mowing. */
function DryLawn({ survey, editor }: StepProps) {
  const { dryBeforeMowing, dryFrom } = survey;
  const note = (fields: { dryBeforeMowing: true | null; dryFrom: string | null }) =>
    commitWords(editor, { type: 'note', fields });
  return (
    <div className="row near at-foot">
      <Choice
        label={say`Lawn dry for mowing`}
        value={dryBeforeMowing ? 'day-before' : dryFrom === undefined ? 'mowing-day' : 'evening'}
        words={DRY_WORDS}
        commit={(choice) =>
          note({
            dryBeforeMowing: choice === 'day-before' ? true : null,
            dryFrom: choice === 'evening' ? (dryFrom ?? DRY_FROM_USUAL) : null,
          })
        }
      />
      {dryFrom !== undefined && !dryBeforeMowing && (
        <LabelledTime
          label={say`Dry from, the day before`}
          value={dryFrom}
          commit={(time) => note({ dryBeforeMowing: null, dryFrom: time })}
        />
      )}
    </div>
  );
}

export default function HouseView(props: StepProps) {
  const { site, survey, editor, timerId, today } = props;
  const { clock, order } = usePreferences();
  const [own, setOwn] = useState(survey.rules !== undefined);
  const visits = dueVisits(survey);
  return (
    <div className="survey-view stack page-column">
      <p>
        <Link to={`/sites/${site.id}`}>{say`This site and all its timers`}</Link>
      </p>
      <RulesNow {...props} />
      <AllowedDays {...props} />
      <p className="soft">{say`Local watering rules come first and can change. The owner is responsible for what the timer does.`}</p>
      {visits.length > 0 && (
        <ul className="points bold" aria-label={say`Next visits`}>
          {visits.map((visit, i) => (
            <li key={i}>{visitSentence(visit, { on: today, clock, order })}</li>
          ))}
        </ul>
      )}
      {own && survey.rules ? (
        <OwnRules {...props} />
      ) : (
        <Button
          onClick={() => {
            setOwn(true);
            editor.commit({ type: 'note', fields: { rules: {} } });
          }}
        >{say`Set rules for this site only`}</Button>
      )}
      {site.supply === 'tank' || site.supply === 'pump' || site.supply === 'bore' ? (
        <p className="caution">
          <strong>{say`Recycled or raw water:`}</strong>{' '}
          {say`put up signs and keep children and hose taps away. Backflow preventers and drinking-water connections are for licensed people and follow local code.`}
        </p>
      ) : (
        <p className="caution">{say`Backflow preventers and drinking-water connections are for licensed people and follow local code. Locate buried services before you dig.`}</p>
      )}
      {site.mowing.length > 0 && <DryLawn {...props} />}
      <SiteDetails site={site} timerId={timerId} />
    </div>
  );
}
