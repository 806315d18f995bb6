import { Collapse, Empty } from 'antd';
import { useMails, type Mail } from '../../data/api/team.ts';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useMoment } from '../../app/platform/useMoment.ts';
import { say } from '@water-clock/core';

const STATE: Readonly<Record<Mail['state'], string>> = {
  sent: say`sent`,
  waiting: say`sending`,
  failed: say`rejected by the mail server`,
  kept: say`not sent: no mail server`,
};

/** Mail to people. What was not sent can be read here and passed on. */
export function MailList() {
  const moment = useMoment();
  const mails = useMails();
  if (mails.isPending) return <Loading what={say`the mail`} />;
  if (mails.isError)
    return <Failed what={say`The mail`} error={mails.error} retry={() => void mails.refetch()} />;
  if (mails.data.length === 0) return <Empty description={say`No mail yet.`} />;
  return (
    <section className="stack">
      <p className="soft">{say`Invitations and password links. Anyone with a link can use it, so give it only to that person. Sent mail is not kept.`}</p>
      <Collapse
        items={mails.data.map(({ id, at, recipient, subject, text, state }) => ({
          key: id,
          collapsible: text === '' ? 'disabled' : 'header',
          showArrow: text !== '',
          label: (
            <span className="row near">
              <strong>{recipient}</strong> {subject}
              <span className="soft">
                {moment(at)}, {STATE[state]}
              </span>
            </span>
          ),
          children: <pre className="mail">{text}</pre>,
        }))}
      />
    </section>
  );
}
