import { Button, Table } from 'antd';
import { useAudit, type Audited, type AuditEntry } from '../api/firm.ts';
import { Failed, Loading } from '../platform/states.tsx';
import { useMoment } from '../platform/useMoment.ts';

const WHAT: Record<Audited, string> = {
  'sign-in': 'Signed in',
  'sign-in-failed': 'Typed a wrong password or code',
  'sign-out': 'Signed out',
  'link-made': 'Made a link to the homeowner’s page',
  'link-opened': 'Opened the homeowner’s page by a link',
  'link-withdrawn': 'Withdrew a link',
  export: 'Saved the house as a file',
  deletion: 'Deleted a document of the library',
  setting: 'Changed how long changes are kept',
  founded: 'Founded the firm',
  invited: 'Invited somebody',
  'invitation-withdrawn': 'Withdrew an invitation',
  joined: 'Joined the firm',
  'role-changed': 'Changed somebody’s role',
  'taken-out': 'Took somebody out',
  'password-changed': 'Chose a new password',
  'password-forgotten': 'Asked for a link for a new password',
  'second-factor-on': 'Switched a second factor on',
  'second-factor-off': 'Switched a second factor off',
  'sessions-ended': 'Signed out other devices',
  'timer-deleted': 'Deleted a timer for good',
  'site-deleted': 'Deleted a house for good',
  'personal-data-deleted': 'Deleted who lives at a house',
  'token-made': 'Made a token for a program',
  'token-withdrawn': 'Withdrew a token',
};

/** Who typed a wrong password is not known, only for whom. */
const whoWords = ({ what, by }: AuditEntry): string =>
  by === null ? 'Somebody with a link' : what === 'sign-in-failed' ? `Somebody, as ${by}` : by;

/** Who came in, and what went out or was changed for all. */
export function AuditTable() {
  const moment = useMoment();
  const audit = useAudit();
  if (audit.isPending) return <Loading what="who came in" />;
  if (audit.isError)
    return <Failed what="Who came in" error={audit.error} retry={() => void audit.refetch()} />;
  return (
    <section className="stack">
      <Table<AuditEntry>
        rowKey="id"
        size="small"
        pagination={false}
        dataSource={audit.data.pages.flat()}
        columns={[
          { title: 'When', render: (_, { at }) => moment(at) },
          { title: 'Who', render: (_, entry) => whoWords(entry) },
          {
            title: 'What',
            render: (_, { what, about }) => (
              <>
                {WHAT[what]}
                {about !== null && <div className="soft">{about}</div>}
              </>
            ),
          },
          {
            title: 'From address',
            responsive: ['md'],
            render: (_, { address }) => address ?? '',
          },
        ]}
      />
      {audit.hasNextPage && (
        <Button loading={audit.isFetchingNextPage} onClick={() => void audit.fetchNextPage()}>
          Show earlier entries
        </Button>
      )}
    </section>
  );
}
