import { useState } from 'react';
import { Alert, Button, Dropdown, Modal, Table } from 'antd';
import { MoreOutlined } from '@ant-design/icons';
import { useSession } from '../../data/api/people.ts';
import { failureWords, newId } from '../../data/api/request.ts';
import {
  useInvitations,
  useMemberAct,
  usePasswordLink,
  usePeople,
  useWithdraw,
  type Member,
} from '../../data/api/team.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import { roleName, ROLES } from '../account/roles.ts';
import { MadeLink } from '../../app/platform/MadeLink.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { newToken } from '../../app/platform/token.ts';
import { useMoment } from '../../app/platform/useMoment.ts';
import { InviteDialog } from './InviteDialog.tsx';
import { say } from '@water-clock/core';

/** Question before the action. */
const ASKED = {
  removal: {
    title: (name: string) => say`Remove ${name} from the company?`,
    text: (name: string) =>
      say`${name} is signed out everywhere and needs a new invitation to come back. The work done by ${name} keeps this name.`,
    ok: say`Remove`,
  },
  'second-factor/off': {
    title: (name: string) => say`Switch off two-step sign-in for ${name}?`,
    text: (name: string) =>
      say`Use this if ${name} lost their phone. Until it is set up again, the password alone is enough to sign in as ${name}.`,
    ok: say`Switch off`,
  },
} as const;

function Invitations() {
  const moment = useMoment();
  const invitations = useInvitations();
  const withdraw = useWithdraw();
  if (!invitations.data || invitations.data.length === 0) return null;
  return (
    <section className="stack">
      <h2>{say`Invited`}</h2>
      <ul className="list ruled">
        {invitations.data.map(({ id, name, email, role, expiresAt }) => (
          <li key={id}>
            <span>
              {say`${name}, ${email}, as ${roleName(role).toLowerCase()}`}{' '}
              <span className="soft">{say`until ${moment(expiresAt)}`}</span>
            </span>
            <Button size="small" onClick={() => withdraw.mutate(id)}>{say`Revoke`}</Button>
          </li>
        ))}
      </ul>
      {withdraw.error && (
        <Alert type="error" title={failureWords(withdraw.error, say`Not revoked`)} />
      )}
    </section>
  );
}

/** The company's members with their roles, and invitations. */
export function PeopleTable() {
  const own = useSession().data?.person?.id;
  const isPhone = useScreen() === 'phone';
  const people = usePeople();
  const act = useMemberAct();
  const help = usePasswordLink();
  const [isInviting, setInviting] = useState(false);
  const [asked, setAsked] = useState<{ member: Member; what: keyof typeof ASKED } | null>(null);
  const [made, setMade] = useState<{ name: string; address: string } | null>(null);
  if (people.isPending) return <Loading what={say`the people`} />;
  if (people.isError)
    return (
      <Failed what={say`The people`} error={people.error} retry={() => void people.refetch()} />
    );
  const giveLink = ({ id: person, name }: Member) => {
    const link = { id: newId(), token: newToken() };
    help.mutate(
      { person, ...link },
      { onSuccess: () => setMade({ name, address: `${location.origin}/join#${link.token}` }) },
    );
  };
  const menuOf = (member: Member) => [
    { key: 'link', label: say`Password link`, onClick: () => giveLink(member) },
    ...(member.secondFactor
      ? [
          {
            key: 'factor',
            label: say`Switch off two-step sign-in …`,
            onClick: () => setAsked({ member, what: 'second-factor/off' as const }),
          },
        ]
      : []),
    {
      key: 'out',
      danger: true,
      label: say`Remove from the company …`,
      onClick: () => setAsked({ member, what: 'removal' as const }),
    },
  ];
  const roleOf = (member: Member) => (
    <SelectField
      aria-label={say`Role of ${member.name}`}
      value={member.role}
      options={ROLES.map(([role, words]) => [role, words] as const)}
      pick={(role) => act.mutate({ member, act: { role } })}
    />
  );
  const present = people.data.filter(({ takenOutAt }) => takenOutAt === null);
  const gone = people.data.filter(({ takenOutAt }) => takenOutAt !== null);
  const question = asked && ASKED[asked.what];
  const error = act.error ?? help.error;
  return (
    <div className="stack far">
      <Button type="primary" onClick={() => setInviting(true)}>{say`Invite a person`}</Button>
      {error && <Alert type="error" title={failureWords(error, say`Not done`)} />}
      {made && (
        <MadeLink
          address={made.address}
        >{say`Only for ${made.name}. It works once, for two hours. It is shown only now:`}</MadeLink>
      )}
      <Table<Member>
        rowKey="id"
        pagination={false}
        dataSource={present}
        columns={[
          {
            title: say`Name`,
            render: (_, member) => (
              <div className="stack near">
                <span>
                  <strong>{member.name}</strong>
                  {member.id === own && say` (you)`}
                  <span className="soft below mail">{member.email}</span>
                </span>
                {isPhone && roleOf(member)}
              </div>
            ),
          },
          ...(isPhone
            ? []
            : [{ title: say`Role`, render: (_: unknown, member: Member) => roleOf(member) }]),
          {
            title: say`Two-step sign-in`,
            responsive: ['md'],
            render: (_, { secondFactor }) => (secondFactor ? 'on' : 'off'),
          },
          {
            title: <span className="hidden-but-read">{say`Actions`}</span>,
            width: 56,
            render: (_, member) => (
              <Dropdown trigger={['click']} menu={{ items: menuOf(member) }}>
                <Button
                  type="text"
                  icon={<MoreOutlined />}
                  aria-label={say`Actions for ${member.name}`}
                />
              </Dropdown>
            ),
          },
        ]}
      />
      <Invitations />
      {gone.length > 0 && (
        <p className="soft">
          {say`Removed:`} {gone.map(({ name }) => name).join(', ')}.
        </p>
      )}
      {isInviting && <InviteDialog close={() => setInviting(false)} />}
      {asked && question && (
        <Modal
          open
          title={question.title(asked.member.name)}
          okText={question.ok}
          okButtonProps={{ danger: true }}
          cancelText={say`Keep as is`}
          onOk={() => {
            act.mutate({ member: asked.member, act: asked.what });
            setAsked(null);
          }}
          onCancel={() => setAsked(null)}
        >
          <p>{question.text(asked.member.name)}</p>
        </Modal>
      )}
    </div>
  );
}
