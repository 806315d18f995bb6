import { useState } from 'react';
import { Link } from 'react-router';
import {
  allowedWords,
  dueVisits,
  rulesSentence,
  visitSentence,
  WEEKDAYS,
  type BriefRules,
  type Weekday,
} from '@water-clock/core';
import { usePreferences } from '../platform/preferences.tsx';
import { commitWords } from '../timers/commitWords.ts';
import { NumberField } from '../timers/NumberField.tsx';
import { SiteDetails } from '../timers/SiteDetails.tsx';
import { WeekdayButtons } from '../timers/WeekdayButtons.tsx';
import { WindowsEditor } from '../timers/WindowsEditor.tsx';
import type { SurveyProps } from '../visit/SurveyViews.tsx';

/** What the place allows this house today, and from when that changes. */
function RulesNow({ rules, site, survey, today }: SurveyProps) {
  const { clock } = usePreferences();
  const speech = { on: today, clock };
  if (survey.rules)
    return (
      <p className="rules-now">
        <strong>Noted for this house by hand:</strong> {allowedWords(survey.rules, speech)}.
      </p>
    );
  if (!rules)
    return (
      <p className="rules-now">
        No rules are chosen yet. Choose those of the district below, or{' '}
        <Link to="/library/rules">enter them in the library</Link>.
      </p>
    );
  return (
    <p className="rules-now">
      <strong>{rules.name}.</strong> {rulesSentence(rules, site, speech)}
    </p>
  );
}

/** Rules of this house alone, where no document of the library fits. */
function OwnRules({ survey, editor }: SurveyProps) {
  const rules = survey.rules ?? {};
  const set = (more: Partial<BriefRules>) =>
    commitWords(editor, { type: 'note', fields: { rules: { ...rules, ...more } } });
  const parity = rules.parity ?? '';
  return (
    <div className="own-rules">
      <div className="labelled">
        Allowed on
        <WeekdayButtons
          label="Allowed weekdays"
          timer={{}}
          pressed={rules.weekdays ?? WEEKDAYS}
          commit={(weekdays: readonly Weekday[]) => void set({ weekdays })}
        />
      </div>
      <label className="labelled">
        Dates
        <select
          className="field"
          value={parity}
          onChange={(event) => {
            const { parity: _before, ...rest } = rules;
            const chosen = event.target.value;
            const fields =
              chosen === 'odd' || chosen === 'even' ? ({ ...rest, parity: chosen } as const) : rest;
            commitWords(editor, { type: 'note', fields: { rules: fields } });
          }}
        >
          <option value="">any</option>
          <option value="odd">odd dates only</option>
          <option value="even">even dates only</option>
        </select>
      </label>
      <NumberField
        label="Most days a week"
        least={1}
        most={7}
        value={rules.mostDaysPerWeek ?? null}
        empty="no limit"
        commit={(value) => {
          const { mostDaysPerWeek: _before, ...rest } = rules;
          return commitWords(editor, {
            type: 'note',
            fields: { rules: value === null ? rest : { ...rest, mostDaysPerWeek: value } },
          });
        }}
      />
      <WindowsEditor
        label="Hours in which watering is not allowed"
        timer={{}}
        windows={rules.noWaterWindows ?? []}
        commit={(windows) => set({ noWaterWindows: windows ?? [] })}
      />
      <label className="check">
        <input
          type="checkbox"
          checked={rules.dripExempt ?? false}
          onChange={(event) => void set({ dripExempt: event.target.checked })}
        />
        drip is free
      </label>
      <button
        type="button"
        className="plain-button"
        onClick={() => editor.commit({ type: 'note', fields: { rules: null } })}
      >
        Go by the library again
      </button>
    </div>
  );
}

export default function HouseView(props: SurveyProps) {
  const { site, survey, editor, timerId, today } = props;
  const { clock } = usePreferences();
  const [own, setOwn] = useState(survey.rules !== undefined);
  const visits = dueVisits(survey);
  return (
    <div className="survey-view">
      <RulesNow {...props} />
      <p className="soft">
        Local watering rules come first, and they change; the owner answers for what the timer does.
      </p>
      {visits.length > 0 && (
        <ul className="next-visits" aria-label="Next visits">
          {visits.map((visit, i) => (
            <li key={i}>{visitSentence(visit, { on: today, clock })}</li>
          ))}
        </ul>
      )}
      {own && survey.rules ? (
        <OwnRules {...props} />
      ) : (
        <button
          type="button"
          className="plain-button survey-side"
          onClick={() => {
            setOwn(true);
            editor.commit({ type: 'note', fields: { rules: {} } });
          }}
        >
          Note rules for this house alone
        </button>
      )}
      {site.supply === 'tank' || site.supply === 'pump' || site.supply === 'bore' ? (
        <p className="caution">
          <strong>Recycled or raw water:</strong> put up signs, keep children and hose taps away
          from it. Backflow preventers and anything joined to drinking water are for licensed people
          and go by local code.
        </p>
      ) : (
        <p className="caution">
          Backflow preventers and drinking-water connections are for licensed people and go by local
          code. Find buried services before you dig.
        </p>
      )}
      <label className="check">
        <input
          type="checkbox"
          checked={survey.dryBeforeMowing ?? false}
          onChange={(event) =>
            editor.commit({
              type: 'note',
              fields: { dryBeforeMowing: event.target.checked ? true : null },
            })
          }
        />
        Keep the lawn dry on the day before it is mown, too
      </label>
      <SiteDetails site={site} timerId={timerId} />
    </div>
  );
}
