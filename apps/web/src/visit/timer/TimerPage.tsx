import {
  lazy,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import {
  monthOf,
  formatDate,
  nightOf,
  parseDate,
  programsByLetter,
  comingRules,
  runsSideBySide,
  SECONDS_PER_DAY,
  tonightOf,
  undoneIn,
  unknownPhases,
  unknownNeeds,
  verdictWords,
  type ClockSecond,
  type EpochDay,
  type Survey,
  say,
} from '@water-clock/core';
import { Patterns } from '../../shared/charts/patterns.tsx';
import type { MoveOutcome } from '../../shared/charts/useMoves.ts';
import { clockChangesAfter } from '../../app/platform/clockChange.ts';
import { HouseStyle, usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useLibrary } from '../../data/api/library.ts';
import { siteKeys } from '../../data/api/sites.ts';
import { STRIP_STEPS, stepStates, type StepPath, isSimple } from '../steps/steps.ts';
import { useBrief } from '../steps/useBrief.ts';
import { RULES_FAILED, useVisitBasis } from '../steps/useVisitBasis.ts';
import { nightAt, type WhatIf } from '../../data/workers/timerQuestion.ts';
import { useTimerAnswer } from '../../data/workers/useTimerAnswer.ts';
import { VisitFrame } from '../../app/frame/VisitFrame.tsx';
import { ChecksProvider } from '../checks/ChecksProvider.tsx';
import { fetchAhead, fetchStep, StepView } from './StepView.tsx';
import { DISTANCES, NIGHTS, type Distance } from './distance.ts';
import { useSession } from '../../data/api/people.ts';
import { openProposalOf, proposedOf, useProposals } from '../../data/api/proposals.ts';
import { Programs } from '../programs/Programs.tsx';
import { timerKeys, useTimer, type TimerView } from '../../data/api/timers.ts';
import { ShownSnapshot } from '../../data/editor/shownSnapshot.ts';
import { Notices } from './Notices.tsx';
import { TimerCommands } from './TimerCommands.tsx';
import { TimerNight } from './TimerNight.tsx';
import { TimerTools } from './TimerTools.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { useBestFix } from './useBestFix.ts';
import { useFirstOverlap } from './useFirstOverlap.ts';
import { useEditor } from '../../data/editor/useEditor.ts';
import { VerdictBar } from './VerdictBar.tsx';
import { useStartVisit } from '../shared/startVisit.ts';

const WORKING = say`Working it out …`;

// What the first screen does not show comes when it is asked for.
const clockPanel = () => import('../timerKind/ClockPanel.tsx');
const settingsPanel = () => import('../settings/SettingsPanel.tsx');
const ClockPanel = lazy(clockPanel);
const ConflictDialog = lazy(() => import('../../data/editor/ConflictDialog.tsx'));
const CycleDetails = lazy(() => import('./CycleDetails.tsx'));
const Proposals = lazy(() => import('../proposals/Proposals.tsx'));
const TimerTour = lazy(() => import('./TimerTour.tsx'));
const SettingsPanel = lazy(settingsPanel);

/** With more programs the strip is too tall to stay in sight while something below it is edited. */
const MOST_ROWS_IN_SIGHT = 8;

const MOST_PERCENT = 500;

const AS_SET: WhatIf = { percent: null, ahead: 0, acts: [], factory: null };

function clockAsFound({ device }: Survey) {
  const { clockShown: shown, clockReally: really } = device ?? {};
  return shown === undefined || really === undefined ? null : { shown, really };
}

interface WorkbenchProps {
  readonly view: TimerView;
  /** The person, where they may only propose. */
  readonly proposer: string | null;
}

function TimerWorkbench({ view, proposer }: WorkbenchProps) {
  const { view: shown = '' } = useParams();
  const navigate = useNavigate();
  const { clock, order } = usePreferences();
  const client = useQueryClient();
  const { editor, people } = useEditor(view, proposer);
  const [state] = useState(() => new ShownSnapshot(editor));
  const snapshot = useSyncExternalStore(state.subscribe, state.snapshot);
  const { plan } = snapshot;
  const { site } = view;
  // The list of sites shows verdicts, too.
  useEffect(() => () => void client.invalidateQueries({ queryKey: siteKeys.all }), [client]);

  const now = useCivilNow(site.timeZone);
  const today = Math.floor(now / SECONDS_PER_DAY);
  const tonight = tonightOf(now);
  const startVisit = useStartVisit(editor, now);
  const isTour = (useLocation().state as { tour?: boolean } | null)?.tour === true;
  const [search] = useSearchParams();
  const setParameters = useCallback(
    (values: Readonly<Record<string, string | null>>) => {
      // From the address itself: two changes in one moment must not undo each other.
      const before = location.search;
      const next = new URLSearchParams(before);
      for (const [name, value] of Object.entries(values))
        if (value === null) next.delete(name);
        else next.set(name, value);
      if (next.toString() !== new URLSearchParams(before).toString())
        void navigate({ search: next.toString() }, { replace: true });
    },
    [navigate],
  );
  // Without a night in the address it is tonight, also once the date has moved on.
  const day = parseDate(search.get('night') ?? '') ?? tonight;
  const isFar = day < tonight || day >= tonight + NIGHTS;
  const [whatIf, setWhatIf] = useState((): WhatIf => {
    const percent = Number(search.get('percent') ?? NaN);
    return percent > 0 && percent <= MOST_PERCENT ? { ...AS_SET, percent } : AS_SET;
  });
  // The address follows: while a slider is dragged it is the slider that leads.
  const { percent } = whatIf;
  useEffect(
    () => setParameters({ percent: percent === null ? null : String(percent) }),
    [percent, setParameters],
  );
  const distance = DISTANCES.find((one) => one === search.get('view')) ?? 'night';
  const setDistance = useCallback(
    (next: Distance) => setParameters({ view: next === 'night' ? null : next }),
    [setParameters],
  );
  const setLetter = useCallback(
    (program: string | null) => setParameters({ program }),
    [setParameters],
  );
  /** The block of the strip that is listed to the second. */
  const [opened, setOpened] = useState<{ letter: string; start: string } | null>(null);
  const changes = useMemo(
    () => clockChangesAfter(new Date((today - 1) * SECONDS_PER_DAY * 1000), site.timeZone),
    [today, site.timeZone],
  );
  const visit = useVisitBasis(site, snapshot.settled, snapshot.survey, today);
  const brief = useBrief({
    ...visit,
    site,
    plan: snapshot.settled,
    survey: snapshot.survey,
    today,
  });
  const ownRules = snapshot.survey.rules;
  const coming = useMemo(
    () => comingRules(ownRules, visit.rules, site, today),
    [ownRules, visit.rules, site, today],
  );
  // A text, so that what is typed does not make a new list each time.
  const anyPhaseText = unknownPhases(plan, snapshot.survey).join('');
  const anyPhase = useMemo(() => anyPhaseText.split('').filter(Boolean), [anyPhaseText]);
  const { settled, survey } = snapshot;
  const clockUnknown = useMemo(
    () => undoneIn(settled, survey).some(({ what }) => what === 'clock-not-looked'),
    [settled, survey],
  );
  const unknown = useMemo(() => unknownNeeds(visit.minutes), [visit.minutes]);
  const { answer, work, stop, blocked, askBlocked } = useTimerAnswer(
    editor,
    {
      on: today,
      firstNight: tonight,
      nights: NIGHTS,
      farNight: isFar ? day : null,
      yearFrom: distance === 'year' ? today : null,
      whatIf,
      changes,
      brief,
      unknown,
      coming,
      anyPhase,
    },
    state.catchUp,
  );
  const lettersText = programsByLetter(plan)
    .map(({ letter }) => letter)
    .join('');
  const letters = useMemo(() => lettersText.split('').filter(Boolean), [lettersText]);
  const choose = useCallback(
    (next: EpochDay) => setParameters({ night: next === tonight ? null : formatDate(next) }),
    [setParameters, tonight],
  );
  /** Brings a night to the large strip, from however far off it was chosen. */
  const showNight = useCallback(
    (next: EpochDay) =>
      setParameters({ night: next === tonight ? null : formatDate(next), view: null }),
    [setParameters, tonight],
  );
  useFirstOverlap(answer, whatIf, choose);
  const moves = useMemo(
    (): MoveOutcome => ({
      // With the clock out the strip's hours are not the timer's, so nothing is marked there.
      onTaken: (letter, start) =>
        whatIf.ahead === 0 && askBlocked({ plan: editor.snapshot().settled, letter, start }),
      onMoving: (letter, start, to) => editor.moveStart(letter, start, to, 'draft'),
      onMoved: (letter, start, to) => {
        askBlocked(null);
        editor.moveStart(letter, start, to, 'commit');
      },
      onCancelled: () => {
        askBlocked(null);
        editor.setDraft(null);
      },
      onChosen: (letter, start) =>
        setOpened((last) =>
          last?.letter === letter && last.start === start ? null : { letter, start },
        ),
    }),
    [askBlocked, editor, whatIf.ahead],
  );
  const night = answer ? nightAt(answer, day) : undefined;
  const openedCycle =
    opened &&
    night?.intended.find(({ letter, start }) => letter === opened.letter && start === opened.start);
  const [overlap] = answer?.check.overlaps ?? [];
  const overlapNight = overlap && nightOf(overlap.second.begins);
  const speech = { on: today, clock, order };
  const sideBySide =
    answer !== null &&
    runsSideBySide(answer.plan, answer.check.overlaps, survey.accepted ?? [], today);
  const verdict =
    answer &&
    verdictWords(answer.check, plan.timer.onOverlap, speech, {
      isOff: plan.settings.mode === 'off',
      sideBySide,
      anyPhase,
    });
  const tone = verdict?.tone ?? 'empty';
  const withStrip = STRIP_STEPS.includes(shown);
  const show = (moment: ClockSecond) => {
    const night = nightOf(moment);
    if (withStrip) showNight(night);
    else void navigate(`/timers/${view.id}?night=${formatDate(night)}`);
    scrollTo({ top: 0 });
  };
  const checked = answer && {
    check: answer.check,
    plan: answer.plan,
    brief,
    rulesState: visit.rulesState,
    survey: snapshot.survey,
    today,
  };
  const fix = useBestFix(answer, brief, today, editor);
  const { rules, minutes } = visit;
  const known = sideBySide ? 'clear' : (answer?.check.verdict ?? null);
  const states = useMemo(
    () => stepStates({ site, plan: settled, survey, rules, minutes, verdict: known, today }),
    [site, settled, survey, rules, minutes, known, today],
  );

  const isThere = answer !== null;
  useEffect(() => {
    if (!isThere) return undefined;
    return fetchAhead([clockPanel, settingsPanel]);
  }, [isThere]);
  // Clear is said where the rules of the place are kept, too.
  const isOpen = tone === 'clear' && visit.rulesState === 'pending';
  // The cast only looks: a path that is no step has no state.
  const step = states[shown as StepPath];

  return (
    <ChecksProvider facts={checked} editor={editor} speech={speech} show={show}>
      <VisitFrame
        timerId={view.id}
        shown={shown}
        states={states}
        simple={isSimple(settled.timer)}
        site={site.name}
        kind={plan.timer.name}
        tools={
          <TimerTools
            editor={editor}
            snapshot={snapshot}
            view={view}
            people={people}
            startVisit={startVisit}
          />
        }
        verdict={
          <VerdictBar
            tone={tone}
            isKnown={answer !== null && !isOpen}
            headline={isOpen ? WORKING : (verdict?.headline ?? WORKING)}
            detail={
              tone === 'clear' && visit.rulesState === 'failed'
                ? RULES_FAILED
                : (verdict?.detail ?? '')
            }
            work={work}
            stop={stop}
            fix={sideBySide ? null : fix}
            show={
              overlap && (overlapNight !== day || !withStrip)
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
          <TimerCommands timerId={view.id} editor={editor} startVisit={startVisit} />
          <Suspense>
            <Proposals timerId={view.id} editor={editor} snapshot={snapshot} proposer={proposer} />
          </Suspense>
          <Notices
            refusal={snapshot.refusal}
            news={snapshot.news}
            merging={snapshot.merging}
            overlaps={(answer?.check.overlaps.length ?? 0) > 0}
            editor={editor}
          />
          {withStrip && (
            <div
              className={
                letters.length > MOST_ROWS_IN_SIGHT || distance !== 'night'
                  ? 'timer-sight stack near'
                  : `timer-sight stack near timer-sight-kept${shown === '' ? ' timer-sight-board' : ''}`
              }
            >
              <TimerNight
                plan={plan}
                site={site}
                answer={answer}
                ownRules={snapshot.survey.rules}
                rules={visit.rules}
                anyPhase={anyPhase}
                clockUnknown={clockUnknown}
                letters={letters}
                day={day}
                tonight={tonight}
                today={today}
                now={now}
                changes={changes}
                blocked={blocked}
                moves={moves}
                whatIf={whatIf}
                setWhatIf={setWhatIf}
                withPercent={shown === 'settings'}
                distance={distance}
                setDistance={setDistance}
                choose={choose}
                showNight={showNight}
              />
            </div>
          )}
          <Suspense fallback={<Loading what={say`the page`} />}>
            {withStrip && openedCycle && (
              <CycleDetails
                cycle={openedCycle}
                plan={plan}
                clock={clock}
                close={() => setOpened(null)}
              />
            )}
            {step && !withStrip && <p className="step-line soft">{step.line}</p>}
            {shown === '' && (
              <Programs
                snapshot={snapshot}
                editor={editor}
                today={today}
                brief={brief}
                letter={search.get('program')}
                setLetter={setLetter}
              />
            )}
            {shown === 'settings' && (
              <SettingsPanel
                plan={snapshot.settled}
                survey={snapshot.survey}
                editor={editor}
                now={now}
                month={monthOf(today)}
              />
            )}
            {shown === 'clock' && (
              <ClockPanel
                plan={plan}
                now={now}
                changes={changes}
                clock={clock}
                ahead={whatIf.ahead}
                setAhead={(ahead) => setWhatIf({ ...whatIf, ahead })}
                asFound={clockAsFound(snapshot.survey)}
                keep={(clockShown, clockReally) =>
                  editor.commit({
                    type: 'note',
                    fields: { device: { ...snapshot.survey.device, clockShown, clockReally } },
                  })
                }
              />
            )}
            {!withStrip && (
              <StepView
                shown={shown}
                version={snapshot.version}
                timerId={view.id}
                site={site}
                plan={snapshot.settled}
                survey={snapshot.survey}
                editor={editor}
                today={today}
                now={now}
                {...visit}
              />
            )}
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

export default function TimerPage() {
  const { timerId = '', view = '' } = useParams();
  const timer = useTimer(timerId);
  const client = useQueryClient();
  // What the step at this address needs comes beside its timer, not after it.
  useEffect(() => fetchStep(view), [view]);
  useLibrary('rules');
  useEffect(
    () => () => client.removeQueries({ queryKey: timerKeys.one(timerId) }),
    [client, timerId],
  );
  const person = useSession().data?.person;
  const proposer = person?.role === 'apprentice' ? person.id : null;
  const proposals = useProposals(timerId);
  const opened = useMemo(() => {
    if (proposer === null || !timer.data || !proposals.data) return timer.data;
    const own = openProposalOf(proposer, proposals.data);
    return { ...timer.data, ...proposedOf(timer.data, own), history: [] };
  }, [timer.data, proposals.data, proposer]);
  const missing = timer.isError ? timer : proposer !== null && proposals.isError ? proposals : null;
  if (missing)
    return (
      <Failed
        what={say`The timer`}
        error={missing.error ?? new Error(say`there was no answer`)}
        retry={() => void missing.refetch()}
      />
    );
  if (!opened || (proposer !== null && !proposals.data)) return <Loading what={say`the timer`} />;
  const { site } = opened;
  return (
    <HouseStyle clock={site.clockStyle} units={site.units}>
      <TimerWorkbench key={timerId} view={opened} proposer={proposer} />
    </HouseStyle>
  );
}
