import { useState, type FormEvent } from 'react';
import { Alert, Button, Modal } from 'antd';
import { nameOf, useHouse, usePlace, type HouseTimer } from '../../data/api/houses.ts';
import { failureWords } from '../../data/api/request.ts';
import { useSites } from '../../data/api/sites.ts';
import { SoughtField } from '../../shared/fields/SoughtField.tsx';
import { TextField } from '../../shared/fields/TextField.tsx';
import { useSettled } from '../../app/platform/useSettled.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly timer: HouseTimer;
  readonly close: () => void;
}

/** A timer's name and site. */
export function PlaceDialog({ timer, close }: Props) {
  const [sought, seek] = useState('');
  const sites = useSites(useSettled(sought));
  const here = useHouse(timer.siteId);
  const place = usePlace();
  const [name, setName] = useState(timer.name);
  const [siteId, setSiteId] = useState(timer.siteId);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (name === timer.name && siteId === timer.siteId) close();
    else place.mutate({ timer, to: { name, siteId } }, { onSuccess: close });
  };
  return (
    <Modal open title={nameOf(timer)} footer={null} onCancel={close}>
      <form className="stack" onSubmit={submit} noValidate>
        <TextField
          label={say`Name`}
          value={name}
          set={setName}
          hint={say`If empty, it is named ${timer.plan.timer.name}.`}
        />
        <SoughtField
          label={say`Site`}
          value={siteId}
          valueWords={here.data?.name ?? ''}
          seek={seek}
          options={(sites.data ?? []).map(({ id, name: house }) => [id, house] as const)}
          pick={setSiteId}
        />
        {siteId !== timer.siteId && (
          <p className="soft">{say`Its programs, survey and logbook move with it. It then follows the rules and weather of the new site.`}</p>
        )}
        {place.error && <Alert type="error" title={failureWords(place.error, say`Not changed`)} />}
        <Button type="primary" htmlType="submit" loading={place.isPending}>
          {siteId === timer.siteId ? say`Rename` : say`Move`}
        </Button>
      </form>
    </Modal>
  );
}
