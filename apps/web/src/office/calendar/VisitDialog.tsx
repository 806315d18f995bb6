import { useState, type FormEvent } from 'react';
import { Alert, Button, Modal } from 'antd';
import { usePlanStop, useTakeBackStop, type CalendarVisit } from '../../data/api/calendar.ts';
import { failureWords } from '../../data/api/request.ts';
import { usePeople } from '../../data/api/team.ts';
import { DateField } from '../../shared/fields/DateField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { TextField } from '../../shared/fields/TextField.tsx';
import { say } from '@water-clock/core';

interface Props {
  readonly visit: CalendarVisit;
  readonly close: () => void;
}

/** When someone goes there, and who. */
export default function VisitDialog({ visit, close }: Props) {
  const { timerId, site, stop } = visit;
  const people = usePeople();
  const plan = usePlanStop();
  const takeBack = useTakeBackStop();
  const [day, setDay] = useState(visit.date ?? '');
  const [personId, setPersonId] = useState(visit.person?.id ?? '');
  const [note, setNote] = useState(stop?.note ?? '');
  const version = stop?.version ?? 0;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    plan.mutate(
      { timerId, version, day: day || null, personId: personId || null, note },
      { onSuccess: close },
    );
  };
  const error = plan.error ?? takeBack.error;
  return (
    <Modal open title={say`Visit to ${site}`} footer={null} onCancel={close}>
      <form className="stack" onSubmit={submit} noValidate>
        <DateField label={say`Date (optional)`} value={day} commit={setDay} />
        <SelectField
          label={say`Technician`}
          value={personId}
          options={[
            ['', say`usual technician`],
            ...(people.data ?? [])
              .filter(({ takenOutAt }) => takenOutAt === null)
              .map(({ id, name }) => [id, name] as const),
          ]}
          pick={setPersonId}
        />
        <TextField
          label={say`Note`}
          value={note}
          set={setNote}
          hint={say`For example: ring first, dog.`}
        />
        {error && <Alert type="error" role="alert" title={failureWords(error, say`Not planned`)} />}
        <div className="row near">
          <Button
            type="primary"
            htmlType="submit"
            loading={plan.isPending}
          >{say`Plan visit`}</Button>
          {stop && (
            <Button
              loading={takeBack.isPending}
              onClick={() => takeBack.mutate({ timerId, version }, { onSuccess: close })}
            >{say`Remove from calendar`}</Button>
          )}
        </div>
      </form>
    </Modal>
  );
}
