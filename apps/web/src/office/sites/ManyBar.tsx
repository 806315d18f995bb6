import { useState } from 'react';
import { Alert, Button, Popconfirm } from 'antd';
import {
  askSites,
  useChangeMany,
  type ManyTo,
  type VersionedId,
  type WhichTimers,
} from '../../data/api/lines.ts';
import { useLibrary } from '../../data/api/library.ts';
import { failureWords } from '../../data/api/request.ts';
import { usePeople } from '../../data/api/team.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { plural, say } from '@water-clock/core';

interface Props {
  readonly chosen: readonly VersionedId[];
  readonly choose: (sites: readonly VersionedId[]) => void;
  /** The current search, and its number of timers. */
  readonly which: WhichTimers;
  readonly total: number;
}

const NONE = 'none';
const valueOf = (value: string) => (value === NONE ? null : value);

/** Actions on all selected sites. */
export function ManyBar({ chosen, choose, which, total }: Props) {
  const rules = useLibrary('rules');
  const people = usePeople();
  const change = useChangeMany();
  const [asking, setAsking] = useState<Error | null>(null);
  const isArchived = which.state === 'archived';
  const act = (to: ManyTo) => change.mutate({ sites: chosen, to }, { onSuccess: () => choose([]) });
  const chooseAll = () => {
    setAsking(null);
    askSites(which).then(choose, setAsking);
  };
  const members = people.data?.filter(({ takenOutAt }) => takenOutAt === null) ?? [];
  return (
    <div className="stack near aside">
      <div className="row near" role="group" aria-label={say`Actions for selected sites`}>
        <strong role="status">
          {plural(chosen.length, '# site selected', '# sites selected')}
        </strong>
        {total > chosen.length && (
          <Button type="link" onClick={chooseAll}>{say`Select all results`}</Button>
        )}
        <SelectField
          aria-label={say`Rules for selected sites`}
          placeholder={say`Assign watering rules`}
          value=""
          options={[
            [NONE, say`no rules`],
            ...(rules.data ?? []).map(({ id, document }) => [id, document.name] as const),
          ]}
          pick={(value) => act({ rulesId: valueOf(value) })}
        />
        <SelectField
          aria-label={say`Technician for selected sites`}
          placeholder={say`Assign technician`}
          value=""
          options={[[NONE, say`no one`], ...members.map(({ id, name }) => [id, name] as const)]}
          pick={(value) => act({ personId: valueOf(value) })}
        />
        <Popconfirm
          title={isArchived ? say`Restore these sites?` : say`Archive ${chosen.length} sites?`}
          description={isArchived ? undefined : say`You can restore them at any time.`}
          okText={isArchived ? say`Restore` : say`Archive`}
          cancelText={say`Not now`}
          onConfirm={() => act({ isArchived: !isArchived })}
        >
          <Button loading={change.isPending}>{isArchived ? say`Restore` : say`Archive`}</Button>
        </Popconfirm>
        <Button type="text" onClick={() => choose([])}>{say`Clear selection`}</Button>
      </div>
      {(asking ?? change.error) && (
        <Alert
          type="error"
          role="alert"
          title={failureWords(asking ?? change.error, say`Not done`)}
        />
      )}
    </div>
  );
}
