import { useState } from 'react';
import { Alert, Button, Modal, Table } from 'antd';
import { useAudit, useFirm, useKeepChanges, type Audited, type AuditEntry } from '../api/firm.ts';
import { useSession } from '../api/people.ts';
import { failureWords } from '../api/request.ts';
import { Switch } from '../fields/Switch.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';

const WHAT: Record<Audited, string> = {
  'sign-in': 'Signed in',
  'sign-in-failed': 'Typed a wrong password',
  'sign-out': 'Signed out',
  'link-made': 'Made a link to the homeowner’s page',
  'link-opened': 'Opened the homeowner’s page by a link',
  'link-withdrawn': 'Withdrew a link',
  export: 'Saved the house as a file',
  deletion: 'Deleted a document of the library',
  setting: 'Changed how long changes are kept',
};

/** Who typed a wrong password is not known, only for whom. */
const whoWords = ({ what, by }: AuditEntry): string =>
  by === null ? 'Somebody with a link' : what === 'sign-in-failed' ? `Somebody, as ${by}` : by;

const FOR_EVER = 'ever';
/** Days, as the keys of a choice. */
const KEPT: readonly (readonly [string, string])[] = [
  [FOR_EVER, 'For ever'],
  ['365', '1 year'],
  ['730', '2 years'],
  ['1825', '5 years'],
];

/** Whether a choice deletes what the present one keeps. */
const isShorter = (value: string, than: string): boolean =>
  value !== FOR_EVER && (than === FOR_EVER || Number(value) < Number(than));

function KeepChanges() {
  const firm = useFirm();
  const keep = useKeepChanges();
  const [asked, setAsked] = useState<string | null>(null);
  if (firm.isPending) return <Loading what="the settings of the firm" />;
  if (firm.isError)
    return <Failed what="The firm" error={firm.error} retry={() => void firm.refetch()} />;
  const save = (value: string) =>
    keep.mutate({ firm: firm.data, days: value === FOR_EVER ? null : Number(value) });
  const days = String(firm.data.keepChangesDays ?? FOR_EVER);
  const options = KEPT.some(([one]) => one === days)
    ? KEPT
    : ([...KEPT, [days, `${days} days`]] as const);
  return (
    <section className="stack">
      <h2>Changes of timers</h2>
      <Switch
        label="Keep who changed what"
        value={days}
        options={options}
        pick={(value) => (isShorter(value, days) ? setAsked(value) : save(value))}
      />
      <Modal
        open={asked !== null}
        title="Delete older entries?"
        okText="Delete them at night"
        okButtonProps={{ danger: true }}
        cancelText="Keep them"
        onOk={() => {
          if (asked !== null) save(asked);
          setAsked(null);
        }}
        onCancel={() => setAsked(null)}
      >
        Entries of who changed what that are older than{' '}
        {options.find(([one]) => one === asked)?.[1]} are deleted tonight. They cannot be brought
        back.
      </Modal>
      <p className="soft">
        {days !== FOR_EVER && 'Older entries are deleted at night. '}
        What is set on a timer, and its logbook, always stay.
      </p>
      {keep.isError && <Alert type="error" title={failureWords(keep.error, 'Not saved')} />}
    </section>
  );
}

function AuditTable() {
  const { clock, order } = usePreferences();
  const audit = useAudit();
  if (audit.isPending) return <Loading what="who came in" />;
  if (audit.isError)
    return <Failed what="Who came in" error={audit.error} retry={() => void audit.refetch()} />;
  const thisYear = new Date().getFullYear();
  const moment = (at: Date) =>
    new Intl.DateTimeFormat(order === 'month-day' ? 'en-US' : 'en-GB', {
      ...(at.getFullYear() === thisYear ? {} : { year: 'numeric' }),
      day: 'numeric',
      month: 'short',
      hour: 'numeric',
      minute: '2-digit',
      hour12: clock === '12',
    }).format(at);
  return (
    <section className="stack">
      <h2>Who came in, and what went out</h2>
      <Table<AuditEntry>
        rowKey="id"
        size="small"
        pagination={false}
        dataSource={audit.data.pages.flat()}
        columns={[
          { title: 'When', render: (_, { at }) => moment(new Date(at)) },
          { title: 'Who', render: (_, entry) => whoWords(entry) },
          {
            title: 'What',
            render: (_, { what, site }) => (
              <>
                {WHAT[what]}
                {site !== null && <div className="soft">{site}</div>}
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

/** What an owner looks after. */
export default function FirmPage() {
  const session = useSession();
  if (session.data?.person?.role !== 'owner')
    return (
      <div className="page">
        <h1>The firm</h1>
        <p>This page is for owners of the firm.</p>
      </div>
    );
  return (
    <div className="page">
      <h1>The firm</h1>
      <AuditTable />
      <KeepChanges />
    </div>
  );
}
