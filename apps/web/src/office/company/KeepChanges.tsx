import { useState } from 'react';
import { Alert, Modal } from 'antd';
import { useCompany, useKeepChanges } from '../../data/api/company.ts';
import { failureWords } from '../../data/api/request.ts';
import { Switch } from '../../shared/fields/Switch.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { say } from '@water-clock/core';

const FOR_EVER = 'ever';
/** Days, as keys of the options. */
const KEPT: readonly (readonly [string, string])[] = [
  [FOR_EVER, say`Forever`],
  ['365', say`1 year`],
  ['730', say`2 years`],
  ['1825', say`5 years`],
];

/** Whether a choice deletes what the current one keeps. */
const isShorter = (value: string, than: string): boolean =>
  value !== FOR_EVER && (than === FOR_EVER || Number(value) < Number(than));

/** How long changes are kept. */
export function KeepChanges() {
  const company = useCompany();
  const keep = useKeepChanges();
  const [asked, setAsked] = useState<string | null>(null);
  if (company.isPending) return <Loading what={say`the company settings`} />;
  if (company.isError)
    return (
      <Failed what={say`Company`} error={company.error} retry={() => void company.refetch()} />
    );
  const save = (value: string) =>
    keep.mutate({ company: company.data, days: value === FOR_EVER ? null : Number(value) });
  const days = String(company.data.keepChangesDays ?? FOR_EVER);
  const options = KEPT.some(([one]) => one === days)
    ? KEPT
    : ([...KEPT, [days, say`${days} days`]] as const);
  return (
    <section className="stack">
      <h2>{say`Timer history`}</h2>
      <Switch
        label={say`Keep timer history for`}
        value={days}
        options={options}
        pick={(value) => (isShorter(value, days) ? setAsked(value) : save(value))}
      />
      <Modal
        open={asked !== null}
        title={say`Delete older entries?`}
        okText={say`Delete tonight`}
        okButtonProps={{ danger: true }}
        cancelText={say`Keep them`}
        onOk={() => {
          if (asked !== null) save(asked);
          setAsked(null);
        }}
        onCancel={() => setAsked(null)}
      >
        {say`History older than`}{' '}
        {say`${options.find(([one]) => one === asked)?.[1]} will be deleted tonight. It cannot be restored.`}
      </Modal>
      <p className="soft">
        {days !== FOR_EVER && `${say`Older history is deleted each night.`} `}
        {say`Timer settings and logbooks are always kept.`}
      </p>
      {keep.isError && <Alert type="error" title={failureWords(keep.error, say`Not saved`)} />}
    </section>
  );
}
