import { useQueryClient } from '@tanstack/react-query';
import { Alert, Button, Drawer, Typography } from 'antd';
import { Link } from 'react-router';
import {
  homeownerNotice,
  keyInLines,
  MOST_BY_PHONE,
  NO_OFFICE,
  parseDate,
  phoneSentences,
  recordDifferences,
  SECONDS_PER_DAY,
  attempt,
  plural,
  say,
} from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';
import { useSession } from '../../data/api/people.ts';
import { proposedRecord, useAnswerProposal, useProposals } from '../../data/api/proposals.ts';
import { replansKey, type Replan, type ReplanLine } from '../../data/api/replans.ts';
import { failureWords } from '../../data/api/request.ts';
import { siteKeys } from '../../data/api/sites.ts';
import { useTimer } from '../../data/api/timers.ts';
import { useScreen } from '../../app/frame/useScreen.ts';
import { useTranslator } from '../../app/platform/useTranslator.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { Differences } from '../../visit/log/Differences.tsx';
import { panelNow } from '../../visit/shared/panel.ts';
import { becauseOf } from './words.ts';

interface Props {
  readonly replan: Replan;
  readonly line: ReplanLine;
  readonly close: () => void;
}

/** One garden: the suggestion beside the current settings, the phone script, and the letter. */
export default function HouseDrawer({ replan, line, close }: Props) {
  const timer = useTimer(line.timerId);
  const proposals = useProposals(line.timerId);
  const office = useLibrary('office');
  const company = useSession().data?.person?.company ?? '';
  const { clock, order } = usePreferences();
  const isPhone = useScreen() === 'phone';
  const client = useQueryClient();
  const answer = useAnswerProposal(line.timerId);
  const now = useCivilNow(timer.data?.site.timeZone ?? 'UTC');
  const inTheirs = useTranslator(timer.data?.site.language ?? null);
  const proposal = proposals.data?.find(({ id }) => id === line.proposal?.id);
  const content = () => {
    if (timer.isError)
      return (
        <Failed what={say`The timer`} error={timer.error} retry={() => void timer.refetch()} />
      );
    if (!timer.data || !proposals.data) return <Loading what={say`the timer`} />;
    if (!proposal) return <p>{say`Someone else has already decided this.`}</p>;
    const { plan, survey, version, site } = timer.data;
    const record = { plan, survey };
    const made = proposedRecord(record, proposal.changes);
    const today = Math.floor(now / SECONDS_PER_DAY);
    const panel = panelNow(plan, now, { clock, order, kind: null });
    const lines = attempt(() => keyInLines(made.plan, plan, panel, true));
    const keyed = lines.ok ? lines.value : [];
    const byPhone = line.phone !== '' && keyed.length <= MOST_BY_PHONE;
    const letter = inTheirs(() =>
      homeownerNotice(
        {
          person: line.person,
          house: site.name,
          company,
          office: office.data?.[0]?.document ?? NO_OFFICE,
          because: becauseOf(replan),
          from: parseDate(line.from ?? '') ?? today,
          plan: made.plan,
          by: byPhone ? 'phone' : 'visit',
        },
        { on: today, clock, order },
      ),
    );
    // The lines are in that language too, because their names are part of it.
    const toSay = inTheirs(() => {
      const said = attempt(() => keyInLines(made.plan, plan, panel, true));
      return said.ok ? phoneSentences(said.value, panel.style) : [];
    });
    const give = (isAccepted: boolean) =>
      answer.mutate(
        { proposal, timerVersion: version, isAccepted, answer: '' },
        {
          onSuccess: close,
          onSettled: () => {
            void client.invalidateQueries({ queryKey: replansKey });
            void client.invalidateQueries({ queryKey: siteKeys.all });
          },
        },
      );
    return (
      <div className="stack">
        <p>{proposal.note}</p>
        <Differences
          rows={recordDifferences(record, made, clock)}
          none={say`This is already set.`}
          before={say`Set now`}
          after={say`Suggested`}
        />
        {answer.error && (
          <Alert
            type="error"
            role="alert"
            title={failureWords(answer.error, say`Answer not saved`)}
          />
        )}
        <div className="row near">
          <Button
            type="primary"
            size="large"
            loading={answer.isPending}
            onClick={() => give(true)}
          >{say`Accept`}</Button>
          <Button
            size="large"
            loading={answer.isPending}
            onClick={() => give(false)}
          >{say`Decline`}</Button>
          <Link to={`/timers/${line.timerId}/plan`}>{say`Plan it differently`}</Link>
        </div>
        <section className="stack near" aria-labelledby="at-the-box">
          <h2 id="at-the-box">
            {plural(keyed.length, 'At the timer: # setting', 'At the timer: # settings')}
          </h2>
          <p className="soft">
            {byPhone
              ? say`Few enough to read out by phone:`
              : line.phone === ''
                ? say`No phone number; needs a visit.`
                : say`Too many to read out by phone; needs a visit.`}
          </p>
          <ol>
            {toSay.map((sentence, i) => (
              <li key={i}>{sentence}</li>
            ))}
          </ol>
        </section>
        <section className="stack near" aria-labelledby="letter">
          <h2 id="letter">{say`To the homeowner`}</h2>
          <Typography.Paragraph
            style={{ whiteSpace: 'pre-line' }}
            copyable={{ text: letter, tooltips: [say`Copy`, say`Copied`] }}
          >
            {letter}
          </Typography.Paragraph>
        </section>
      </div>
    );
  };
  return (
    <Drawer
      open
      placement={isPhone ? 'bottom' : 'right'}
      size={isPhone ? '90vh' : 680}
      title={line.site}
      onClose={close}
    >
      {content()}
    </Drawer>
  );
}
