import { useState, type FormEvent } from 'react';
import { Alert, Button, Input } from 'antd';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { dateWords, SECONDS_PER_DAY, say } from '@water-clock/core';
import { failureWords, newId, request } from '../../data/api/request.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';

interface Comment {
  readonly id: string;
  readonly by: string;
  /** ISO instant. */
  readonly at: string;
  readonly text: string;
}

/** Colleagues' comments on a visit; the visit itself never changes. */
export function Comments({ visitId, today }: { readonly visitId: string; readonly today: number }) {
  const { order } = usePreferences();
  const client = useQueryClient();
  const path = `/api/visits/${encodeURIComponent(visitId)}/comments`;
  const queryKey = ['visits', visitId, 'comments'];
  const comments = useQuery({ queryKey, queryFn: () => request<Comment[]>('GET', path) });
  const [text, setText] = useState('');
  /** Kept until saved, so that sending it again is harmless. */
  const [id, setId] = useState(newId);
  const add = useMutation({
    mutationFn: () => request<Comment[]>('POST', path, { id, text: text.trim() }),
    onSuccess: (all) => {
      client.setQueryData(queryKey, all);
      setText('');
      setId(newId());
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) add.mutate();
  };
  return (
    <div className="stack near">
      {(comments.data ?? []).length > 0 && (
        <ul className="points" aria-label={say`Comments`}>
          {comments.data?.map((one) => (
            <li key={one.id}>
              {one.text}{' '}
              <span className="soft">
                {one.by},{' '}
                {dateWords(Math.floor(Date.parse(one.at) / 1000 / SECONDS_PER_DAY), today, order)}
              </span>
            </li>
          ))}
        </ul>
      )}
      <form className="row near" onSubmit={submit}>
        <Input
          className="grow"
          aria-label={say`Comment on this visit`}
          placeholder={say`Comment on this visit`}
          maxLength={2000}
          value={text}
          onChange={({ target }) => setText(target.value)}
        />
        <Button
          htmlType="submit"
          loading={add.isPending}
          disabled={text.trim() === ''}
        >{say`Add`}</Button>
      </form>
      {add.error && (
        <Alert type="error" role="alert" title={failureWords(add.error, say`Not added`)} />
      )}
    </div>
  );
}
