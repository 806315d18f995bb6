import { useState, type FormEvent } from 'react';
import { Alert, Button, Checkbox, Modal } from 'antd';
import { useNavigate } from 'react-router';
import { emptyPlan } from '@water-clock/core';
import { nameOf, useAddTimer, type House } from '../api/houses.ts';
import { useLibrary } from '../api/library.ts';
import { failureWords, newId } from '../api/request.ts';
import { useSites } from '../api/sites.ts';
import { SelectField } from '../fields/SelectField.tsx';
import { TextField } from '../fields/TextField.tsx';
import { usePreferences } from '../platform/preferences.tsx';

const COPY = 'copy:';

/** One more timer at a house: empty, of some kind, or as another one is. */
export function AddTimer({ house, close }: { readonly house: House; readonly close: () => void }) {
  const { clock, order } = usePreferences();
  const navigate = useNavigate();
  const kinds = useLibrary('kinds');
  const sites = useSites({ clock, order });
  const add = useAddTimer();
  const [timerId] = useState(newId);
  const [name, setName] = useState('');
  const [of, setOf] = useState('');
  const [withSurvey, setWithSurvey] = useState(true);
  const copies = [
    ...house.timers.map((timer) => [timer.id, `${nameOf(timer)} of this house`] as const),
    ...(sites.data ?? [])
      .filter(({ id }) => id !== house.id)
      .flatMap((site) =>
        site.timers.map((timer) => [timer.id, `${site.name}, ${timer.name}`] as const),
      ),
  ];
  const kind = kinds.data?.find(({ id }) => id === of) ?? kinds.data?.[0];
  const copyOf = of.startsWith(COPY) ? of.slice(COPY.length) : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const common = { siteId: house.id, timerId, name };
    if (copyOf === null && !kind) return;
    add.mutate(
      copyOf === null && kind
        ? { ...common, plan: emptyPlan(kind.document.timer) }
        : { ...common, copyOf: copyOf ?? '', withSurvey },
      { onSuccess: () => void navigate(`/timers/${timerId}/stations`) },
    );
  };
  return (
    <Modal open title={`One more timer at ${house.name}`} footer={null} onCancel={close}>
      <form className="stack" onSubmit={submit} noValidate>
        <TextField
          label="What it is called"
          value={name}
          set={setName}
          hint="Such as Garage or Shed; left empty, it is called by its kind."
        />
        <SelectField
          label="Timer"
          value={copyOf === null ? (kind?.id ?? '') : of}
          options={[
            ...(kinds.data ?? []).map(
              ({ id, document: { timer } }) => [id, `empty: ${timer.name}`] as const,
            ),
            ...copies.map(([id, words]) => [`${COPY}${id}`, `copy of ${words}`] as const),
          ]}
          pick={setOf}
        />
        {copyOf !== null && (
          <Checkbox checked={withSurvey} onChange={({ target }) => setWithSurvey(target.checked)}>
            with what was surveyed of its stations
          </Checkbox>
        )}
        {add.error && <Alert type="error" title={failureWords(add.error, 'Not added')} />}
        <Button type="primary" htmlType="submit" loading={add.isPending}>
          Add the timer
        </Button>
      </form>
    </Modal>
  );
}
