import { Button, Table } from 'antd';
import { useAudit, type Audited, type AuditEntry } from '../../data/api/company.ts';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useMoment } from '../../app/platform/useMoment.ts';
import { say } from '@water-clock/core';

const WHAT: Record<Audited, string> = {
  'sign-in': say`Signed in`,
  'sign-in-failed': say`Typed a wrong password or code`,
  'sign-out': say`Signed out`,
  'link-made': say`Made a link to the homeowner’s page`,
  'link-opened': say`Opened the homeowner’s page by a link`,
  'link-withdrawn': say`Withdrew a link`,
  export: say`Saved the house as a file`,
  deletion: say`Deleted a document of the library`,
  setting: say`Changed how long changes are kept`,
  founded: say`Created the company`,
  invited: say`Invited somebody`,
  'invitation-withdrawn': say`Withdrew an invitation`,
  joined: say`Joined the company`,
  'role-changed': say`Changed somebody’s role`,
  'taken-out': say`Took somebody out`,
  'password-changed': say`Chose a new password`,
  'password-forgotten': say`Asked for a link for a new password`,
  'second-factor-on': say`Switched a second factor on`,
  'second-factor-off': say`Switched a second factor off`,
  'sessions-ended': say`Signed out other devices`,
  'timer-deleted': say`Deleted a timer for good`,
  'site-deleted': say`Deleted a house for good`,
  'personal-data-deleted': say`Deleted who lives at a house`,
  'token-made': say`Made a token for a program`,
  'token-withdrawn': say`Withdrew a token`,
};

/** Who typed a wrong password is not known, only for whom. */
const whoWords = ({ what, by }: AuditEntry): string =>
  by === null
    ? say`Somebody with a link`
    : what === 'sign-in-failed'
      ? say`Somebody, as ${by}`
      : by;

/** Who came in, and what went out or was changed for all. */
export function AuditTable() {
  const moment = useMoment();
  const audit = useAudit();
  if (audit.isPending) return <Loading what={say`who came in`} />;
  if (audit.isError)
    return (
      <Failed what={say`Who came in`} error={audit.error} retry={() => void audit.refetch()} />
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
          { title: say`Who`, render: (_, entry) => whoWords(entry) },
          {
            title: say`What`,
            render: (_, { what, about }) => (
              <>
                {WHAT[what]}
                {about !== null && <div className="soft">{about}</div>}
              </>
            ),
          },
          {
            title: say`From address`,
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
