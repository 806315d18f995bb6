import { Button, Input } from 'antd';
import type { Contact } from '@water-clock/core';
import { MOST_PEOPLE, type SiteFaults, type SiteForm } from './siteForm.ts';
import { say } from '@water-clock/core';

interface Props {
  readonly form: SiteForm;
  readonly faults: SiteFaults;
  readonly change: (form: SiteForm) => void;
}

const NOBODY: Contact = { name: '', role: '', phone: '' };
const FIELDS = [
  ['name', say`Name`, say`Petra Fennimore`],
  ['role', say`Role`, 'owner'],
  ['phone', say`Phone`, '555 0148'],
] as const;

/** The contacts at a site. */
export function PeopleFields({ form, faults, change }: Props) {
  const { people } = form;
  const set = (at: number, more: Partial<Contact>) =>
    change({
      ...form,
      people: people.map((person, i) => (i === at ? { ...person, ...more } : person)),
    });
  return (
    <fieldset className="stack near">
      <legend>{say`People`}</legend>
      {people.map((person, i) => (
        <div key={i} className="row near">
          {FIELDS.map(([key, label, example]) => (
            <Input
              key={key}
              aria-label={say`${label}, person ${i + 1}`}
              placeholder={i === 0 ? example : label}
              value={person[key]}
              maxLength={key === 'phone' ? 40 : 80}
              type={key === 'phone' ? 'tel' : 'text'}
              onChange={(event) => set(i, { [key]: event.target.value })}
            />
          ))}
          <Button
            aria-label={say`Delete person ${i + 1}`}
            onClick={() => change({ ...form, people: people.filter((_, at) => at !== i) })}
          >{say`Delete`}</Button>
        </div>
      ))}
      {faults.people && <span className="fault">{faults.people}</span>}
      {people.length < MOST_PEOPLE && (
        <Button
          onClick={() => change({ ...form, people: [...people, NOBODY] })}
        >{say`Add person`}</Button>
      )}
    </fieldset>
  );
}
