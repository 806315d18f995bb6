import { lazy, Suspense, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useLocation, useNavigate, useParams } from 'react-router';
import {
  hasPercent,
  formatDate,
  nightOf,
  runsSideBySide,
  SECONDS_PER_DAY,
  tonightOf,
  verdictWords,
  type ClockSecond,
  say,
} from '@water-clock/core';
import { VisitFrame } from '../../app/frame/VisitFrame.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { siteKeys } from '../../data/api/sites.ts';
import type { TimerView } from '../../data/api/timers.ts';
import { ShownSnapshot } from '../../data/editor/shownSnapshot.ts';
import { useEditor } from '../../data/editor/useEditor.ts';
import { nightAt } from '../../data/workers/timerQuestion.ts';
import { Patterns } from '../../shared/charts/patterns.tsx';
import { ChecksProvider } from '../checks/ChecksProvider.tsx';
import { useStartVisit } from '../shared/startVisit.ts';
import { useKind } from '../timerKind/useKind.ts';
import { isSimple, STRIP_STEPS, stepStates, type StepPath } from '../steps/steps.ts';
import { RULES_FAILED } from '../steps/useVisitBasis.ts';
import { Notices } from './Notices.tsx';
import { clockPanel, settingsPanel, ShownStep } from './ShownStep.tsx';
import { fetchAhead } from './StepView.tsx';
import { TimerCommands } from './TimerCommands.tsx';
import { TimerNight } from './TimerNight.tsx';
import { TimerTools } from './TimerTools.tsx';
import { useBestFix } from './useBestFix.ts';
import { useFirstOverlap } from './useFirstOverlap.ts';
import { useStripMoves } from './useStripMoves.ts';
import { useStripView } from './useStripView.ts';
import { useTimerFacts } from './useTimerFacts.ts';
import { VerdictBar } from './VerdictBar.tsx';

const WORKING = say`Calculating …`;

// Loaded when needed.
const ConflictDialog = lazy(() => import('../../data/editor/ConflictDialog.tsx'));
const CycleDetails = lazy(() => import('./CycleDetails.tsx'));
const Proposals = lazy(() => import('../proposals/Proposals.tsx'));
const TimerTour = lazy(() => import('./TimerTour.tsx'));

/** With more programs the strip is too tall to stay visible while something below is edited. */
const MOST_ROWS_IN_SIGHT = 8;

interface Props {
  readonly view: TimerView;
  /** The person, if they may only suggest. */
  readonly proposer: string | null;
}

/** A timer in its visit: frame with verdict, strip, and the step at this address. */
export function TimerVisit({ view: timer, proposer }: Props) {
  const { view: shown = '' } = useParams();
  const navigate = useNavigate();
  const { clock, order } = usePreferences();
  const client = useQueryClient();
  const { editor, people } = useEditor(timer, proposer);
  const [state] = useState(() => new ShownSnapshot(editor));
  const snapshot = useSyncExternalStore(state.subscribe, state.snapshot);
  const { plan, settled, survey } = snapshot;
  const { site } = timer;
  // The site list shows verdicts too.
  useEffect(() => () => void client.invalidateQueries({ queryKey: siteKeys.all }), [client]);

  const now = useCivilNow(site.timeZone);
  const today = Math.floor(now / SECONDS_PER_DAY);
  const tonight = tonightOf(now);
  const dates = { now, today, tonight };
  const startVisit = useStartVisit(editor, now);
  const isTour = (useLocation().state as { tour?: boolean } | null)?.tour === true;
  const view = useStripView(tonight);
  const { day, distance, whatIf } = view;
  const facts = useTimerFacts(site, snapshot, dates, view, editor, state.catchUp);
  const { answer, visit, brief, anyPhase, coming } = facts;
  const { rules, rulesState, minutes } = visit;
  useFirstOverlap(answer, whatIf, view.choose);
  const { moves, opened, close } = useStripMoves(editor, facts.askBlocked, whatIf.ahead);

  const openedCycle =
    opened && answer
      ? nightAt(answer, day)?.intended.find(
          ({ letter, start }) => letter === opened.letter && start === opened.start,
        )
      : null;
  const overlaps = answer?.check.overlaps ?? [];
  const [overlap] = overlaps;
  const speech = { on: today, clock, order };
  const sideBySide =
    answer !== null && runsSideBySide(answer.plan, overlaps, survey.accepted ?? [], today);
  const verdict =
    answer &&
    verdictWords(answer.check, plan.timer.onOverlap, speech, {
      isOff: plan.settings.mode === 'off',
      hasPercent: hasPercent(plan),
      sideBySide,
      anyPhase,
    });
  const tone = verdict?.tone ?? 'empty';
  const withStrip = STRIP_STEPS.includes(shown);
  const show = (moment: ClockSecond) => {
    const night = nightOf(moment);
    if (withStrip) view.showNight(night);
    else void navigate(`/timers/${timer.id}?night=${formatDate(night)}`);
    scrollTo({ top: 0 });
  };
  const fix = useBestFix(answer, brief, today, editor);
  const known = sideBySide ? 'clear' : (answer?.check.verdict ?? null);
  const kind = useKind(settled);
  const states = useMemo(
    () => stepStates({ site, plan: settled, survey, kind, rules, minutes, verdict: known, today }),
    [site, settled, survey, kind, rules, minutes, known, today],
  );

  const isThere = answer !== null;
  useEffect(() => {
    if (!isThere) return undefined;
    return fetchAhead([clockPanel, settingsPanel]);
  }, [isThere]);
  // "No overlaps" also requires that the site's rules are kept.
  const isOpen = tone === 'clear' && rulesState === 'pending';
  const isUnchecked = tone === 'clear' && rulesState === 'failed';
  const isKeptInSight = facts.letters.length <= MOST_ROWS_IN_SIGHT && distance === 'night';
  // The cast only reads: a path that is no step has no state.
  const step = states[shown as StepPath];

  return (
    <ChecksProvider
      timerId={timer.id}
      facts={
        answer && {
          check: answer.check,
          plan: answer.plan,
          brief,
          rulesState,
          survey,
          today,
          coming,
        }
      }
      editor={editor}
      speech={speech}
      show={show}
    >
      <VisitFrame
        timerId={timer.id}
        shown={shown}
        states={states}
        simple={isSimple(settled.timer)}
        site={site.name}
        kind={plan.timer.name}
        tools={
          <TimerTools
            editor={editor}
            snapshot={snapshot}
            view={timer}
            people={people}
            startVisit={startVisit}
          />
        }
        verdict={
          <VerdictBar
            tone={tone}
            isKnown={answer !== null && !isOpen}
            headline={isOpen ? WORKING : (verdict?.headline ?? WORKING)}
            detail={isUnchecked ? RULES_FAILED : (verdict?.detail ?? '')}
            work={facts.work}
            stop={facts.stop}
            fix={sideBySide ? null : fix}
            show={
              overlap && (nightOf(overlap.second.begins) !== day || !withStrip)
                ? () => show(overlap.second.begins)
                : null
            }
          />
        }
      >
        <div className={`timer stack timer-on-${shown || 'programs'}`}>
          <Patterns />
          {isTour && (
            <Suspense>
              <TimerTour
                close={() => void navigate(location.pathname, { replace: true, state: null })}
              />
            </Suspense>
          )}
          <TimerCommands timerId={timer.id} editor={editor} startVisit={startVisit} />
          <Suspense>
            <Proposals timerId={timer.id} editor={editor} snapshot={snapshot} proposer={proposer} />
          </Suspense>
          <Notices
            refusal={snapshot.refusal}
            news={snapshot.news}
            merging={snapshot.merging}
            overlaps={overlaps.length > 0}
            editor={editor}
          />
          {withStrip && (
            <div
              className={`timer-sight stack near${isKeptInSight ? ' timer-sight-kept' : ''}${isKeptInSight && shown === '' ? ' timer-sight-board' : ''}`}
            >
              <TimerNight
                snapshot={snapshot}
                site={site}
                dates={dates}
                view={view}
                facts={facts}
                moves={moves}
                withPercent={shown === 'settings'}
              />
            </div>
          )}
          <Suspense fallback={<Loading what={say`the page`} />}>
            {withStrip && openedCycle && (
              <CycleDetails cycle={openedCycle} plan={plan} clock={clock} close={close} />
            )}
            {step && !withStrip && <p className="step-line soft">{step.line}</p>}
            <ShownStep
              shown={shown}
              timer={timer}
              snapshot={snapshot}
              editor={editor}
              dates={dates}
              view={view}
              facts={facts}
            />
          </Suspense>
          {snapshot.conflict && (
            <Suspense>
              <ConflictDialog
                key={snapshot.conflict.open.map(({ at }) => at).join()}
                conflict={snapshot.conflict}
                clock={clock}
                order={order}
                resolve={(choices) => editor.resolve(choices)}
              />
            </Suspense>
          )}
        </div>
      </VisitFrame>
    </ChecksProvider>
  );
}
