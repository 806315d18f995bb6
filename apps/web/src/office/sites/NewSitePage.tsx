import { useState, type FormEvent } from 'react';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { emptyPlan, SHIPPED_KINDS, type Plan, say } from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { newId } from '../../data/api/request.ts';
import { deviceZone, isZone } from '../../app/platform/zone.ts';
import { useLibrary } from '../../data/api/library.ts';
import { PlanDocumentField } from '../../shared/fields/PlanDocumentField.tsx';
import { useAddSite } from '../../data/api/sites.ts';
import {
  emptyForm,
  readSiteForm,
  type SiteFaults,
  type SiteForm,
} from '../../visit/house/siteForm.ts';
import { SiteFormFields } from '../../visit/house/SiteFormFields.tsx';
import { InUseField, KindSelect } from '../../visit/timerKind/KindSelect.tsx';
import { stopsAtUnread, useUnread } from '../../shared/fields/unread.ts';

const FROM_DOCUMENT = 'document';
/** Default kind. */
const USUAL_KIND = SHIPPED_KINDS[2]?.id ?? FROM_DOCUMENT;

/** A new site with its timer, of a generic kind or from a plan document. */
export default function NewSitePage() {
  const navigate = useNavigate();
  const addSite = useAddSite();
  // Made once, so that pressing twice adds one site.
  const [ids] = useState(() => ({ siteId: newId(), timerId: newId() }));
  const [form, setForm] = useState<SiteForm>(() => emptyForm(deviceZone()));
  const [faults, setFaults] = useState<SiteFaults>({});
  const { hasUnread, look } = useUnread();
  const kinds = useLibrary('kinds');
  const [kind, setKind] = useState(USUAL_KIND);
  const [inUse, setInUse] = useState<number | null>(null);
  const [document, setDocument] = useState<Plan | null>(null);

  const take = (plan: Plan | null) => {
    setDocument(plan);
    const site = plan?.site;
    if (site)
      setForm((before) => ({
        ...before,
        name: site.name,
        houseNumber: site.houseNumber ?? before.houseNumber,
        timeZone: site.timeZone ?? before.timeZone,
        latitude: site.latitude === undefined ? before.latitude : String(site.latitude),
        longitude: site.longitude === undefined ? before.longitude : String(site.longitude),
      }));
  };

  const timer = kinds.data?.find(({ id }) => id === kind)?.document.timer;
  const most = timer?.stationCount ?? 1;
  const used = Math.min(inUse ?? most, most);
  const plan = timer ? emptyPlan(timer, used) : document;
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    if (stopsAtUnread(event.currentTarget)) return;
    const read = readSiteForm(form, isZone);
    setFaults('faults' in read ? read.faults : {});
    if ('faults' in read || !plan) return;
    addSite.mutate(
      { ...ids, site: read.site, plan },
      { onSuccess: ({ timerId }) => void navigate(`/timers/${timerId}/stations`) },
    );
  };

  return (
    <div className="page">
      <PageHeading title={say`New site`} />
      <form
        className="site-form stack column"
        onSubmit={submit}
        onBlur={look}
        onChange={look}
        noValidate
      >
        <KindSelect
          label={say`Timer`}
          value={kind}
          options={[
            ...(kinds.data ?? []).map(
              ({ id, document: { timer: one } }) => [id, one.name] as const,
            ),
            [FROM_DOCUMENT, say`Import a plan …`],
          ]}
          pick={(value) => {
            setKind(value);
            setInUse(null);
          }}
        />
        {timer && most > 1 && <InUseField value={used} most={most} set={setInUse} />}
        {kind === FROM_DOCUMENT && <PlanDocumentField read={take} />}
        <SiteFormFields form={form} faults={faults} change={setForm} />
        {addSite.error && (
          <p role="alert" className="fault">
            {addSite.error.message}
          </p>
        )}
        <div>
          <Button
            type="primary"
            htmlType="submit"
            size="large"
            disabled={!plan}
            loading={addSite.isPending}
          >{say`Add site`}</Button>{' '}
          {hasUnread && (
            <span className="fault">{say`Not added: a field above has text that cannot be used.`}</span>
          )}
        </div>
      </form>
    </div>
  );
}
