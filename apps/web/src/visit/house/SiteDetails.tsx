import { useState, type FormEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { newId, RefusedError } from '../../data/api/request.ts';
import { isZone } from '../../app/platform/zone.ts';
import { useChangeSite, type Site } from '../../data/api/sites.ts';
import { fieldText, formOf, readSiteForm, type SiteFaults, type SiteForm } from './siteForm.ts';
import { SiteFormFields } from './SiteFormFields.tsx';
import { stopsAtUnread, useUnread } from '../../shared/fields/unread.ts';
import { timerKeys, type TimerView } from '../../data/api/timers.ts';
import { say } from '@water-clock/core';

const FIELD_NAMES: Record<keyof SiteForm, string> = {
  name: say`Name`,
  houseNumber: say`Number`,
  street: say`Street`,
  locality: say`Town`,
  timeZone: say`Time zone`,
  latitude: say`Latitude`,
  longitude: say`Longitude`,
  supply: say`Supply`,
  supplyFlow: say`Supply flow`,
  mowing: say`Mowing days`,
  notes: say`Notes`,
  people: say`People`,
  units: say`Units`,
  clockStyle: say`Time format`,
  language: say`Homeowner’s page language`,
  town: say`Weather town`,
  climateId: say`Weather from`,
  rulesId: say`Watering rules`,
  minutesId: say`Minutes table`,
};

/** The site's facts as a form. Shows both sides if someone else saved first. */
export function SiteDetails({ site, timerId }: { readonly site: Site; readonly timerId: string }) {
  const client = useQueryClient();
  const change = useChangeSite(site.id);
  const [form, setForm] = useState<SiteForm>(() => formOf(site));
  const [faults, setFaults] = useState<SiteFaults>({});
  const [theirs, setTheirs] = useState<Site | null>(null);
  // One id for each content: the same content again is a repeat, a changed form a new write.
  const [write, setWrite] = useState(() => ({ id: newId(), baseVersion: site.version }));

  const { hasUnread, look } = useUnread();
  /** What is typed from now on is not saved yet. */
  const forget = () => {
    if (change.isSuccess) change.reset();
  };
  const edit = (next: SiteForm) => {
    setForm(next);
    forget();
    setWrite((before) => ({ ...before, id: newId() }));
  };
  const saved = (now: Site) => {
    setTheirs(null);
    setForm(formOf(now));
    setWrite({ id: newId(), baseVersion: now.version });
    client.setQueryData<TimerView>(
      timerKeys.one(timerId),
      (view) => view && { ...view, site: now },
    );
  };
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    if (stopsAtUnread(event.currentTarget)) return;
    const read = readSiteForm(form, isZone);
    setFaults('faults' in read ? read.faults : {});
    if ('faults' in read) return;
    change.mutate(
      { ...write, site: read.site },
      {
        onSuccess: saved,
        onError: (error) => {
          if (error instanceof RefusedError && error.code === 'stale-version')
            // Safe cast: our own server answers a stale write with the current site.
            setTheirs(error.body['current'] as Site);
        },
      },
    );
  };
  const theirForm = theirs && formOf(theirs);
  return (
    <form
      className="site-form stack column"
      onSubmit={submit}
      onBlur={look}
      onChange={(event) => {
        forget();
        look(event);
      }}
      noValidate
    >
      <h2>{say`The house`}</h2>
      <SiteFormFields form={form} faults={faults} change={edit} />
      {theirs && theirForm && (
        <div role="alert" className="conflict notice stack">
          <p>
            <strong>{say`Someone else changed these details.`}</strong>{' '}
            {say`Your changes are not saved yet.`}
          </p>
          <ul>
            {(Object.keys(FIELD_NAMES) as (keyof SiteForm)[])
              .filter((key) => fieldText(theirForm, key) !== fieldText(form, key))
              .map((key) => (
                <li key={key}>
                  {say`${FIELD_NAMES[key]}: saved “${fieldText(theirForm, key)}”, yours “${fieldText(form, key)}”`}
                </li>
              ))}
          </ul>
          <Button onClick={() => saved(theirs)}>{say`Keep the saved version`}</Button>{' '}
          <Button
            type="primary"
            onClick={() => {
              setWrite({ id: newId(), baseVersion: theirs.version });
              setTheirs(null);
            }}
          >{say`Keep editing mine`}</Button>
        </div>
      )}
      {change.error &&
        !theirs &&
        change.error instanceof RefusedError &&
        change.error.code !== 'stale-version' && (
          <p role="alert" className="fault">
            {change.error.message}
          </p>
        )}
      <div>
        <Button
          htmlType="submit"
          loading={change.isPending}
          disabled={theirs !== null}
        >{say`Save site`}</Button>{' '}
        {hasUnread && (
          <span className="fault">{say`Not saved: a field above has text that cannot be used.`}</span>
        )}
        {change.isSuccess && <span role="status">{say`Saved.`}</span>}
      </div>
    </form>
  );
}
