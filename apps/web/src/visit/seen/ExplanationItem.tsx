import { Button } from 'antd';
import { Link } from 'react-router';
import {
  behindSentence,
  explanationSentence,
  lookSentence,
  mendSentence,
  pressesOf,
  programsByLetter,
  settingsWith,
  type Plan,
  type Cause,
  type TimerSpeech,
  variantSentence,
  type Visit,
  say,
} from '@water-clock/core';
import { marksOf } from '../../shared/charts/marksOf.ts';
import { SmallNight } from '../../shared/charts/SmallNight.tsx';
import { sunOf } from '../../shared/charts/sun.ts';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import type { TimerEditor } from '../../data/editor/editor.ts';
import type { StepProps } from '../steps/stepProps.ts';
import type { Explained } from '../../data/workers/diagnosing.ts';

interface ExplanationProps {
  readonly explained: Explained;
  readonly rank: number;
  readonly speech: TimerSpeech;
  readonly visit: Visit;
  readonly site: StepProps['site'];
  readonly editor: TimerEditor;
  readonly timerId: string;
  /** As planned now. */
  readonly plan: Plan;
}

/** More than this is tiring. */
const MOST_LOOKS = 4;

/** What to check for each cause, and for variants that show elsewhere, with the fix. */
function looksOf({ causes, or }: Explained, speech: TimerSpeech): [look: string, mend: string][] {
  const isStart = ({ type }: Cause) => type === 'extra-start' || type === 'other-start';
  const told = causes.flatMap((cause) =>
    isStart(cause) && 'program' in cause ? [cause.program] : [],
  );
  const others = or
    .flatMap((variant) => variant.causes)
    // The same starts are listed already.
    .filter(
      (cause) =>
        !(isStart(cause) && told.some((one) => 'program' in cause && cause.program === one)),
    );
  const looks = new Map(
    [...causes, ...others].map((cause) => [
      lookSentence(cause, speech),
      mendSentence(cause, speech),
    ]),
  );
  return [...looks].slice(0, MOST_LOOKS);
}

/** One explanation: what it says, how well it fits, what it would have looked like, how to check it, and the fix. */
export function ExplanationItem(props: ExplanationProps) {
  const { explained, rank, speech, visit, site, editor, timerId, plan } = props;
  const { causes, fits, shown, world, behind } = explained;
  const sentence = explanationSentence(causes, speech);
  const agreeing = fits.filter((cost) => cost < 1.5).length;
  const presses = pressesOf(world);
  const letters = programsByLetter(world.plan).map(({ letter }) => letter);
  const dead = causes.find((cause) => cause.type === 'dead-station');
  const takeOut = (letter: string, start: string) => {
    const starts = plan.programs.find((program) => program.letter === letter)?.starts ?? [];
    editor.commit({
      type: 'set-starts',
      program: letter,
      starts: starts.filter((one) => one !== start),
    });
  };
  const looks = looksOf(explained, speech);
  const [look] = looks;
  const head = (
    <span className="explanation-head row in-line at-head">
      <span className="large heavy">{rank}</span>
      <span>
        <strong>{sentence}</strong>
        {look && <span className="soft below">{say`Check: ${look[0]}`}</span>}
      </span>
    </span>
  );
  return (
    <li className={rank === 1 ? 'explanation turn' : 'explanation part'}>
      <Disclosure className="explanation-fold" summary={head} openAtFirst={rank === 1}>
        {() => (
          <div className="stack near">
            <p className="soft">{say`Sightings explained: ${agreeing} of ${fits.length}.`}</p>
            {explained.or.map((variant, i) => (
              <div key={i} className="aside stack near">
                <p>{variantSentence(variant.causes, speech)}</p>
                <FoundTrue causes={variant.causes} size="small" {...{ speech, visit, editor }} />
              </div>
            ))}
            {behind.length > 0 && (
              <ul className="points">
                {behind.map((behind) => {
                  const sighting = visit.sightings?.[behind.sighting];
                  // If something else is wrong, the start itself may be right.
                  const isSet =
                    causes.length === 0 &&
                    plan.programs.some(
                      ({ letter, starts }) =>
                        letter === behind.program && starts.includes(behind.start),
                    );
                  return (
                    sighting && (
                      <li key={behind.sighting}>
                        {behindSentence(behind, sighting, speech)}{' '}
                        {isSet && (
                          <Button
                            onClick={() => takeOut(behind.program, behind.start)}
                          >{say`Delete this start time`}</Button>
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
                {...(presses.length > 0
                  ? { marks: marksOf(presses, world.plan, shown.from, shown.to) }
                  : {})}
                label={say`Expected runs`}
                chosen={false}
                choose={() => undefined}
              />
            )}
            {causes.length === 0 ? (
              <p>{say`The settings are the cause. The As found step lists the findings and their fixes.`}</p>
            ) : (
              <div className="stack near">
                {looks.map(([look, mend]) => (
                  <div key={look}>
                    <b>{say`Check:`}</b> {look} <b>{say`Then:`}</b> {mend}
                  </div>
                ))}
              </div>
            )}
            <div className="row near">
              <FoundTrue causes={causes} size="middle" {...{ speech, visit, editor }} />
              {causes.some(({ type }) => type === 'clock') && (
                <Link to={`/timers/${timerId}/clock`}>{say`Record the clock`}</Link>
              )}
              {dead && <a href={`#ladder-${dead.station}`}>{say`Troubleshoot`}</a>}
            </div>
          </div>
        )}
      </Disclosure>
    </li>
  );
}

interface FoundTrueProps extends Pick<ExplanationProps, 'speech' | 'visit' | 'editor'> {
  readonly causes: readonly Cause[];
  readonly size: 'small' | 'middle';
}

/** Button for someone who checked and found it: notes the settings as found, and the cause in the visit. */
function FoundTrue({ causes, size, speech, visit, editor }: FoundTrueProps) {
  const sentence = explanationSentence(causes, speech);
  const inBox = settingsWith(speech.plan, causes);
  /** Corrects the settings as found. The plan stays, so it is keyed in. */
  const note = (found: Plan) => {
    const { asFound } = visit;
    editor.commit(
      asFound
        ? { type: 'note-visit', fields: { asFound: { ...asFound, plan: found }, cause: sentence } }
        : { type: 'replace-plan', plan: found },
    );
  };
  const isCause = visit.cause === sentence;
  return (
    <span className="row near">
      {inBox && (
        <Button
          size={size}
          onClick={() => note(inBox)}
        >{say`The timer shows this: record it as found`}</Button>
      )}
      <Button
        size={size}
        type={isCause ? 'primary' : 'default'}
        onClick={() =>
          editor.commit({ type: 'note-visit', fields: { cause: isCause ? null : sentence } })
        }
      >
        {isCause ? say`✓ This was it` : say`This was it`}
      </Button>
    </span>
  );
}
