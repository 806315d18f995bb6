import { useState, type FormEvent } from 'react';
import { Alert, Button, Modal } from 'antd';
import type { Role } from '../../data/api/people.ts';
import { failureWords, newId, RefusedError } from '../../data/api/request.ts';
import { useInvite } from '../../data/api/team.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { faultAt, TextField } from '../../shared/fields/TextField.tsx';
import { ROLES } from '../account/roles.ts';
import { MadeLink } from '../../app/platform/MadeLink.tsx';
import { newToken } from '../../app/platform/token.ts';
import { say } from '@water-clock/core';

const makeLink = () => ({ id: newId(), token: newToken() });

/** Invites someone and shows the link, in case they are here. */
export function InviteDialog({ close }: { readonly close: () => void }) {
  const invite = useInvite();
  // If the answer is lost, the same invitation is created again, not a second one; a refused one is abandoned.
  const [link, setLink] = useState(makeLink);
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<Role>('technician');
  const { error } = invite;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    invite.mutate(
      { ...link, name, email, role },
      {
        onError: (told) => {
          if (told instanceof RefusedError) setLink(makeLink());
        },
      },
    );
  };
  const told = faultAt(error, 'name') ?? faultAt(error, 'email');
  return (
    <Modal open title={say`Invite a person`} footer={null} onCancel={close}>
      {invite.isSuccess ? (
        <div className="stack">
          <p>
            {say`${name} is invited. We are mailing this link to ${email}. Without a mail server, find it under “Mail”.`}
          </p>
          <MadeLink
            address={`${location.origin}/join#${link.token}`}
          >{say`It works once, for 48 hours. It is shown only now:`}</MadeLink>
          <Button type="primary" onClick={close}>{say`Done`}</Button>
        </div>
      ) : (
        <form className="stack" onSubmit={submit} noValidate>
          <TextField label={say`Name`} value={name} set={setName} fault={faultAt(error, 'name')} />
          <TextField
            label={say`E-mail`}
            type="email"
            value={email}
            set={setEmail}
            fault={faultAt(error, 'email')}
          />
          <SelectField
            label={say`Role`}
            value={role}
            options={ROLES.map(([one, words, may]) => [one, `${words}: ${may}`] as const)}
            pick={setRole}
          />
          {error && told === undefined && (
            <Alert type="error" title={failureWords(error, say`Not invited`)} />
          )}
          <Button type="primary" htmlType="submit" loading={invite.isPending}>{say`Invite`}</Button>
        </form>
      )}
    </Modal>
  );
}
