import { useState, type FormEvent } from 'react';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { emptyPlan, TIMER_KINDS, type Plan } from '@water-clock/core';
import { newId } from '../platform/api.ts';
import { deviceZone, isZone } from '../platform/zone.ts';
import { PlanDocumentField } from '../timers/PlanDocumentField.tsx';
import { useAddSite } from './queries.ts';
import { readSiteForm, type SiteFaults, type SiteForm } from './siteForm.ts';
import { SiteFormFields } from './SiteFormFields.tsx';
import './sites.css';

const FROM_DOCUMENT = 'document';

/** A house and its timer: of one of the generic kinds, or from a plan document. */
export default function NewSitePage() {
  const navigate = useNavigate();
  const addSite = useAddSite();
  // Made once, so that pressing twice adds one site.
  const [ids] = useState(() => ({ siteId: newId(), timerId: newId() }));
  const [form, setForm] = useState<SiteForm>({
    name: '',
    houseNumber: '',
    timeZone: deviceZone(),
    latitude: '',
    longitude: '',
    supply: '',
    mowing: '',
    notes: '',
  });
  const [faults, setFaults] = useState<SiteFaults>({});
  const [kind, setKind] = useState(TIMER_KINDS[2]?.name ?? FROM_DOCUMENT);
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

  const timer = TIMER_KINDS.find((one) => one.name === kind);
  const plan = timer ? emptyPlan(timer) : document;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const read = readSiteForm(form, isZone);
    setFaults('faults' in read ? read.faults : {});
    if ('faults' in read || !plan) return;
    addSite.mutate(
      { ...ids, site: read.site, plan },
      { onSuccess: ({ timerId }) => void navigate(`/timers/${timerId}`) },
    );
  };

  return (
    <div className="page">
      <h1>New site</h1>
      <form className="site-form" onSubmit={submit} noValidate>
        <label className="labelled">
          Timer
          <select className="field" value={kind} onChange={(event) => setKind(event.target.value)}>
            {TIMER_KINDS.map(({ name }) => (
              <option key={name}>{name}</option>
            ))}
            <option value={FROM_DOCUMENT}>From a plan document …</option>
          </select>
        </label>
        {!timer && <PlanDocumentField read={take} />}
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
          >
            Add the site
          </Button>
        </div>
      </form>
    </div>
  );
}
