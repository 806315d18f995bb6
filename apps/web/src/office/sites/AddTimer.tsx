import { useState, type FormEvent } from 'react';
import { Alert, Button, Checkbox, Modal } from 'antd';
import { useNavigate } from 'react-router';
import { emptyPlan, say, sayText } from '@water-clock/core';
import { nameOf, useAddTimer, type House } from '../../data/api/houses.ts';
import { useLibrary } from '../../data/api/library.ts';
import { failureWords, newId } from '../../data/api/request.ts';
import { useLines } from '../../data/api/lines.ts';
import { SoughtField } from '../../shared/fields/SoughtField.tsx';
import { TextField } from '../../shared/fields/TextField.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { useSettled } from '../../app/platform/useSettled.ts';

const COPY = 'copy:';
const MOST_FOUND = 30;

const hasWords = (text: string, sought: string) =>
  sought
    .toLowerCase()
    .split(/\s+/u)
    .every((word) => text.toLowerCase().includes(word));

/** Adds a timer to a site: an empty one of some kind, or a copy. */
export function AddTimer({ house, close }: { readonly house: House; readonly close: () => void }) {
  const { clock, order } = usePreferences();
  const navigate = useNavigate();
  const kinds = useLibrary('kinds');
  const [sought, seek] = useState('');
  const others = useLines({ find: useSettled(sought), size: MOST_FOUND }, { clock, order });
  const add = useAddTimer();
  const [timerId] = useState(newId);
  const [name, setName] = useState('');
  const [of, setOf] = useState('');
  const [ofWords, setOfWords] = useState('');
  const [withSurvey, setWithSurvey] = useState(true);
  const choices = [
    ...[
      ...(kinds.data ?? []).map(
        ({ id, document: { timer } }) => [id, say`empty: ${sayText(timer.name)}`] as const,
      ),
      ...house.timers.map(
        (timer) => [`${COPY}${timer.id}`, say`copy of ${nameOf(timer)} at this site`] as const,
      ),
    ].filter(([, words]) => hasWords(words, sought)),
    ...(others.data?.lines ?? [])
      .filter(({ site }) => site.id !== house.id)
      .map(
        ({ id, name: timer, site }) =>
          [`${COPY}${id}`, say`copy of ${site.name}, ${timer}`] as const,
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
    <Modal open title={say`Add a timer at ${house.name}`} footer={null} onCancel={close}>
      <form className="stack" onSubmit={submit} noValidate>
        <TextField
          label={say`Name`}
          value={name}
          set={setName}
          hint={say`For example, Garage or Shed. If empty, the timer kind is used.`}
        />
        <SoughtField
          label={say`Timer`}
          value={copyOf === null ? (kind?.id ?? '') : of}
          valueWords={ofWords}
          options={choices}
          seek={seek}
          pick={(value) => {
            setOf(value);
            setOfWords(choices.find(([one]) => one === value)?.[1] ?? '');
          }}
        />
        {copyOf !== null && (
          <Checkbox
            checked={withSurvey}
            onChange={({ target }) => setWithSurvey(target.checked)}
          >{say`including station survey data`}</Checkbox>
        )}
        {add.error && <Alert type="error" title={failureWords(add.error, say`Not added`)} />}
        <Button type="primary" htmlType="submit" loading={add.isPending}>{say`Add timer`}</Button>
      </form>
    </Modal>
  );
}
