import { Button, Table } from 'antd';
import { useAudit, type Audited, type AuditEntry } from '../../data/api/company.ts';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useMoment } from '../../app/platform/useMoment.ts';
import { say } from '@water-clock/core';

const WHAT: Record<Audited, string> = {
  'sign-in': say`Signed in`,
  'sign-in-failed': say`Entered a wrong password or code`,
  'sign-out': say`Signed out`,
  'link-made': say`Created a link to the homeowner’s page`,
  'link-opened': say`Opened the homeowner’s page from a link`,
  'link-withdrawn': say`Revoked a link`,
  export: say`Exported a site`,
  deletion: say`Deleted a library document`,
  setting: say`Changed how long history is kept`,
  founded: say`Created the company`,
  invited: say`Invited a person`,
  'invitation-withdrawn': say`Revoked an invitation`,
  joined: say`Joined the company`,
  'role-changed': say`Changed a role`,
  'taken-out': say`Removed a person`,
  'password-changed': say`Set a new password`,
  'password-forgotten': say`Requested a password link`,
  'second-factor-on': say`Switched two-step sign-in on`,
  'second-factor-off': say`Switched two-step sign-in off`,
  'sessions-ended': say`Signed out other devices`,
  'timer-deleted': say`Deleted a timer permanently`,
  'site-deleted': say`Deleted a site permanently`,
  'personal-data-deleted': say`Deleted customer details`,
  'token-made': say`Created an API token`,
  'token-withdrawn': say`Revoked an API token`,
};

/** For a wrong password, only the account is known, not who typed it. */
const whoWords = ({ what, by }: AuditEntry): string =>
  by === null ? say`Someone with a link` : what === 'sign-in-failed' ? say`Someone, as ${by}` : by;

/** The activity log. */
export function AuditTable() {
  const moment = useMoment();
  const audit = useAudit();
  if (audit.isPending) return <Loading what={say`activity log`} />;
  if (audit.isError)
    return (
      <Failed what={say`Activity log`} error={audit.error} retry={() => void audit.refetch()} />
    );
  return (
    <section className="stack">
      <Table<AuditEntry>
        rowKey="id"
        size="small"
        pagination={false}
        dataSource={audit.data.pages.flat()}
        columns={[
          { title: say`When`, render: (_, { at }) => moment(at) },
          { title: say`Person`, render: (_, entry) => whoWords(entry) },
          {
            title: say`Action`,
            render: (_, { what, about }) => (
              <>
                {WHAT[what]}
                {about !== null && <div className="soft">{about}</div>}
              </>
            ),
          },
          {
            title: say`IP address`,
            responsive: ['md'],
            render: (_, { address }) => address ?? '',
          },
        ]}
      />
      {audit.hasNextPage && (
        <Button
          loading={audit.isFetchingNextPage}
          onClick={() => void audit.fetchNextPage()}
        >{say`Show earlier entries`}</Button>
      )}
    </section>
  );
}
