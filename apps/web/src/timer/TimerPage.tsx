import {
  lazy,
  Suspense,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { useNavigate, useParams } from 'react-router';
import {
  monthOf,
  nightOf,
  programsByLetter,
  SECONDS_PER_DAY,
  tonightOf,
  unknownNeeds,
  verdictWords,
  type EpochDay,
  type Survey,
} from '@water-clock/core';
import { Patterns } from '../charts/patterns.tsx';
import type { MoveOutcome } from '../charts/useMoves.ts';
import { clockChangesAfter } from '../platform/clockChange.ts';
import { HouseStyle, usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { siteKeys } from '../api/sites.ts';
import { StepNav } from '../steps/StepNav.tsx';
import { STRIP_STEPS, stepStates } from '../steps/steps.ts';
import { useBrief } from '../steps/useBrief.ts';
import { useVisitBasis } from '../steps/useVisitBasis.ts';
import { nightAt, type WhatIf } from '../workers/timerQuestion.ts';
import { useTimerAnswer, type Work } from '../workers/useTimerAnswer.ts';
import { ClockPanel } from '../device/ClockPanel.tsx';
import { CycleDetails } from './CycleDetails.tsx';
import { ConflictDialog, newsWords } from '../editor/ConflictDialog.tsx';
import { FindingList } from './FindingList.tsx';
import { NIGHTS, NightsAside, type Distance } from './NightsAside.tsx';
import { OverlapList } from './OverlapList.tsx';
import { Programs } from '../programs/Programs.tsx';
import { timerKeys, useTimer, type TimerView } from '../api/timers.ts';
import { SettingsPanel } from '../settings/SettingsPanel.tsx';
import { ShownSnapshot } from '../editor/shownSnapshot.ts';
import { TimerNight } from './TimerNight.tsx';
import { TimerTools } from './TimerTools.tsx';
import { useCivilNow } from '../platform/useCivilNow.ts';
import { useEditor } from '../editor/useEditor.ts';
import { VerdictMark } from '../charts/VerdictMark.tsx';
import './timer.css';
import './timerParts.css';

const SurveyViews = lazy(() => import('./StepViews.tsx'));

/** With more programs the strip is too tall to stay in sight while something below it is edited. */
const MOST_ROWS_IN_SIGHT = 8;

const AS_SET: WhatIf = { percent: null, ahead: 0 };

/** What to say while the answer is on its way, or where none came. */
function WorkNote({ work, stop }: { readonly work: Work; readonly stop: () => void }) {
  switch (work.state) {
    case 'done':
      return null;
    case 'working':
      return (
        <p className="work-note">
          Working it out: {Math.round(work.share * 100)} %{' '}
          <Button size="small" onClick={stop}>
            Stop
          </Button>
        </p>
      );
    case 'stopped':
      return <p className="work-note">Stopped: what stands here is of an earlier state.</p>;
    case 'refused':
      return (
        <p className="work-note fault">What stands here is of an earlier state: {work.why}.</p>
      );
  }
}

function clockAsFound({ device }: Survey) {
  const { clockShown: shown, clockReally: really } = device ?? {};
  return shown === undefined || really === undefined ? null : { shown, really };
}

function TimerWorkbench({ view }: { readonly view: TimerView }) {
  const { view: shown = '' } = useParams();
  const navigate = useNavigate();
  const { clock } = usePreferences();
  const client = useQueryClient();
  const editor = useEditor(view);
  const [state] = useState(() => new ShownSnapshot(editor));
  const snapshot = useSyncExternalStore(state.subscribe, state.snapshot);
  const { plan } = snapshot;
  const { site } = view;
  // The list of sites shows verdicts, too.
  useEffect(() => () => void client.invalidateQueries({ queryKey: siteKeys.all }), [client]);

  const now = useCivilNow(site.timeZone);
  const today = Math.floor(now / SECONDS_PER_DAY);
  const tonight = tonightOf(now);
  // Null: tonight, also once the date has moved on.
  const [chosen, setChosen] = useState<EpochDay | null>(null);
  const day = chosen ?? tonight;
  const isFar = day < tonight || day >= tonight + NIGHTS;
  const [whatIf, setWhatIf] = useState(AS_SET);
  const [distance, setDistance] = useState<Distance>('nights');
  /** The block of the strip that is listed to the second. */
  const [opened, setOpened] = useState<{ letter: string; start: string } | null>(null);
  const changes = useMemo(
    () => clockChangesAfter(new Date((today - 1) * SECONDS_PER_DAY * 1000), site.timeZone),
    [today, site.timeZone],
  );
  const visit = useVisitBasis(site, snapshot.settled, snapshot.survey);
  const brief = useBrief({
    ...visit,
    site,
    plan: snapshot.settled,
    survey: snapshot.survey,
    today,
  });
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
    },
    state.catchUp,
  );
  const lettersText = programsByLetter(plan)
    .map(({ letter }) => letter)
    .join('');
  const letters = useMemo(() => lettersText.split('').filter(Boolean), [lettersText]);
  const choose = useCallback((day: EpochDay) => setChosen(day === tonight ? null : day), [tonight]);
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
  // The large strip and the verdict first; the other views follow.
  const later = useDeferredValue(answer);
  const openedCycle =
    opened &&
    night?.intended.find(({ letter, start }) => letter === opened.letter && start === opened.start);
  const [overlap] = answer?.check.overlaps ?? [];
  const overlapNight = overlap && nightOf(overlap.second.begins);
  const speech = { on: today, clock };
  const verdict = answer && verdictWords(answer.check, plan.timer.onOverlap, speech);
  const tone = verdict?.tone ?? 'empty';
  const withStrip = STRIP_STEPS.includes(shown);
  const told = answer && (
    <FindingList
      check={answer.check}
      plan={answer.plan}
      brief={brief}
      survey={snapshot.survey}
      editor={editor}
      today={today}
      speech={speech}
      show={(moment) => {
        choose(nightOf(moment));
        if (!withStrip) void navigate(`/timers/${view.id}`);
        scrollTo({ top: 0 });
      }}
    />
  );
  const states = stepStates({
    site,
    plan: snapshot.settled,
    survey: snapshot.survey,
    rules: visit.rules,
    minutes: visit.minutes,
    verdict: answer?.check.verdict ?? null,
    today,
  });

  return (
    <div className={`timer timer-on-${shown || 'programs'}`}>
      <Patterns />
      <div className="timer-head">
        <h1>
          {site.name} <span className="timer-kind soft">{plan.timer.name}</span>
        </h1>
        <TimerTools editor={editor} snapshot={snapshot} view={view} />
      </div>
      {snapshot.refusal && (
        <p role="alert" className="notice">
          {snapshot.refusal}{' '}
          <Button size="small" onClick={() => editor.dismiss()}>
            Understood
          </Button>
        </p>
      )}
      {snapshot.news && (
        <p role="alert" className="notice">
          <strong>{snapshot.news.by ?? 'Somebody'} changed this timer elsewhere.</strong>{' '}
          {newsWords(snapshot.news.before, snapshot.news.after, clock)}{' '}
          <Button size="small" onClick={() => editor.dismiss()}>
            Understood
          </Button>
        </p>
      )}
      <div
        className={
          letters.length > MOST_ROWS_IN_SIGHT ? 'timer-sight' : 'timer-sight timer-sight-kept'
        }
      >
        <div
          className={`verdict verdict-${tone}${withStrip ? '' : ' verdict-line'}`}
          data-of={answer ? 'known' : 'unknown'}
          role="status"
        >
          <VerdictMark verdict={tone} size={withStrip ? 44 : 28} />
          <div>
            <p className="verdict-headline">{verdict?.headline ?? 'Working it out …'}</p>
            {withStrip && <p className="verdict-detail">{verdict?.detail}</p>}
            <WorkNote work={work} stop={stop} />
          </div>
          {overlapNight !== undefined && overlapNight !== day && (
            <Button size="large" onClick={() => setChosen(overlapNight)}>
              Show that night
            </Button>
          )}
        </div>
        {withStrip && (
          <TimerNight
            plan={plan}
            site={site}
            answer={answer}
            ownRules={snapshot.survey.rules}
            rules={visit.rules}
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
          />
        )}
      </div>
      {shown !== 'walk' && <StepNav timerId={view.id} shown={shown} states={states} />}
      {withStrip && openedCycle && (
        <CycleDetails cycle={openedCycle} plan={plan} clock={clock} close={() => setOpened(null)} />
      )}
      {withStrip ? (
        <div className={distance === 'year' ? 'timer-columns timer-columns-year' : 'timer-columns'}>
          <div className="timer-edit">
            {answer && (
              <OverlapList
                check={answer.check}
                onOverlap={plan.timer.onOverlap}
                speech={speech}
                choose={choose}
              />
            )}
            {shown === '' && <Programs snapshot={snapshot} editor={editor} today={today} />}
            {shown === 'settings' && (
              <SettingsPanel
                plan={snapshot.settled}
                editor={editor}
                today={today}
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
            {told}
          </div>
          <NightsAside
            answer={later}
            letters={letters}
            place={site}
            today={today}
            tonight={tonight}
            day={day}
            clock={clock}
            distance={distance}
            setDistance={setDistance}
            choose={choose}
          />
        </div>
      ) : (
        <Suspense fallback={<Loading what="the page" />}>
          {shown === 'timer' && told}
          <SurveyViews
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
          {shown === 'found' && snapshot.survey.visit?.asFound && told}
        </Suspense>
      )}
      {snapshot.conflict && (
        <ConflictDialog
          conflict={snapshot.conflict}
          clock={clock}
          resolve={(choice) => editor.resolve(choice)}
        />
      )}
    </div>
  );
}

export default function TimerPage() {
  const { timerId = '' } = useParams();
  const timer = useTimer(timerId);
  const client = useQueryClient();
  useEffect(
    () => () => client.removeQueries({ queryKey: timerKeys.one(timerId) }),
    [client, timerId],
  );
  if (timer.isPending) return <Loading what="the timer" />;
  if (timer.isError)
    return <Failed what="The timer" error={timer.error} retry={() => void timer.refetch()} />;
  const { site } = timer.data;
  return (
    <HouseStyle clock={site.clockStyle} units={site.units}>
      <TimerWorkbench key={timerId} view={timer.data} />
    </HouseStyle>
  );
}
