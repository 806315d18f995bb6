import { Button } from 'antd';
import { Link } from 'react-router';
import {
  behindSentence,
  explanationSentence,
  lookSentence,
  mendSentence,
  programsByLetter,
  settingsWith,
  type Plan,
  type Slip,
  type TimerSpeech,
  variantSentence,
  type Visit,
} from '@water-clock/core';
import { SmallNight } from '../charts/SmallNight.tsx';
import { sunOf } from '../charts/sun.ts';
import type { TimerEditor } from '../timers/editor.ts';
import type { SurveyProps } from '../visit/SurveyViews.tsx';
import type { Explained } from '../workers/diagnosing.ts';

interface ExplanationProps {
  readonly explained: Explained;
  readonly rank: number;
  readonly speech: TimerSpeech;
  readonly visit: Visit;
  readonly site: SurveyProps['site'];
  readonly editor: TimerEditor;
  readonly timerId: string;
  /** As it is planned now. */
  readonly plan: Plan;
}

/** Each slip, and of its variants those that want another look. */
function looksOf({ slips, or }: Explained): readonly Slip[] {
  const types = new Set(slips.map(({ type }) => type));
  const more = or.flatMap((one) =>
    one.slips.filter(
      ({ type }) => (type === 'sensor' || type === 'rain-delay') && !types.has(type),
    ),
  );
  return [...slips, ...more.slice(0, 1)];
}

/** One explanation: what it says, how well it agrees, what it would have been like, how to see it, what mends it. */
export function ExplanationItem(props: ExplanationProps) {
  const { explained, rank, speech, visit, site, editor, timerId, plan } = props;
  const { slips, fits, shown, world, behind } = explained;
  const sentence = explanationSentence(slips, speech);
  const agreeing = fits.filter((cost) => cost < 1.5).length;
  const letters = programsByLetter(world.plan).map(({ letter }) => letter);
  const dead = slips.find((slip) => slip.type === 'dead-station');
  const inBox = settingsWith(speech.plan, slips);
  /** Corrects what was found; what is planned stays, so it is keyed in. */
  const note = (found: Plan) => {
    const { asFound } = visit;
    editor.commit(
      asFound
        ? { type: 'note-visit', fields: { asFound: { ...asFound, plan: found }, cause: sentence } }
        : { type: 'replace-plan', plan: found },
    );
  };
  const takeOut = (letter: string, start: string) => {
    const starts = plan.programs.find((one) => one.letter === letter)?.starts ?? [];
    editor.commit({
      type: 'set-starts',
      program: letter,
      starts: starts.filter((one) => one !== start),
    });
  };
  return (
    <li className="explanation">
      <p className="explanation-head">
        <span className="explanation-rank">{rank}</span>
        <strong>{sentence}</strong>
      </p>
      <p className="soft">
        Agrees with {agreeing} of {fits.length} {fits.length === 1 ? 'sighting' : 'sightings'}.
      </p>
      {explained.or.map((one, i) => (
        <p key={i} className="explanation-or">
          {variantSentence(one.slips, speech)}
        </p>
      ))}
      {behind.length > 0 && (
        <ul className="visit-list">
          {behind.map((one) => {
            const sighting = visit.sightings?.[one.sighting];
            // Where something else is wrong, the start itself may be right.
            const isSet =
              slips.length === 0 &&
              plan.programs.some(
                ({ letter, starts }) => letter === one.program && starts.includes(one.start),
              );
            return (
              sighting && (
                <li key={one.sighting}>
                  {behindSentence(one, sighting, speech)}{' '}
                  {isSet && (
                    <Button onClick={() => takeOut(one.program, one.start)}>
                      Take this start out
                    </Button>
                  )}
                </li>
              )
            );
          })}
        </ul>
      )}
      {shown && (
        <SmallNight
          night={shown}
          letters={letters}
          sun={sunOf(shown, site)}
          label="So it would have run"
          chosen={false}
          choose={() => undefined}
        />
      )}
      {slips.length === 0 ? (
        <p>
          Then it is a matter of its settings: the findings on the step “As found” say which, each
          with its fix.
        </p>
      ) : (
        <dl className="explanation-how">
          {looksOf(explained).map((slip, i) => (
            <div key={i}>
              <dt>Look</dt>
              <dd>{lookSentence(slip, speech)}</dd>
              <dt>Then</dt>
              <dd>{mendSentence(slip, speech)}</dd>
            </div>
          ))}
        </dl>
      )}
      <p className="explanation-acts">
        {inBox && (
          <>
            <Button onClick={() => note(inBox)}>
              It stands so in the box: note it as found
            </Button>{' '}
          </>
        )}
        <Button
          type={visit.cause === sentence ? 'primary' : 'default'}
          onClick={() =>
            editor.commit({
              type: 'note-visit',
              fields: { cause: visit.cause === sentence ? null : sentence },
            })
          }
        >
          {visit.cause === sentence ? '✓ This was it' : 'This was it'}
        </Button>{' '}
        {slips.some(({ type }) => type === 'clock') && (
          <Link to={`/timers/${timerId}/clock`}>Note the clock</Link>
        )}
        {dead && <a href={`#ladder-${dead.station}`}>Its ladder</a>}
      </p>
    </li>
  );
}
