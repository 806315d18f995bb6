import { useState } from 'react';
import { Button } from 'antd';
import {
  findingSentence,
  letterAt,
  notFitting,
  type EpochDay,
  type Plan,
  type Timer,
  plural,
  say,
  sayText,
} from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';

interface Props {
  readonly plan: Plan;
  readonly editor: Pick<TimerEditor, 'commit'>;
  readonly today: EpochDay;
}

/** Changes the timer's kind, after saying what would no longer fit. */
export function KindPicker({ plan, editor, today }: Props) {
  const [name, setName] = useState('');
  const kinds = useLibrary('kinds');
  const kind = kinds.data?.find(({ id }) => id === name)?.document.timer;
  return (
    <section className="kind-picker stack whole">
      <SelectField
        label={say`Start from another timer kind`}
        value={name}
        options={[
          ['', say`leave as is`] as const,
          ...(kinds.data ?? []).map(
            ({ id, document }) => [id, sayText(document.timer.name)] as const,
          ),
        ]}
        pick={(value) => setName(value)}
      />
      {kind && (
        <Preview
          plan={plan}
          kind={kind}
          today={today}
          take={() => {
            editor.commit({ type: 'set-timer', timer: kind });
            setName('');
          }}
        />
      )}
    </section>
  );
}

function Preview({
  plan,
  kind,
  today,
  take,
}: {
  readonly plan: Plan;
  readonly kind: Timer;
  readonly today: EpochDay;
  readonly take: () => void;
}) {
  const { clock, order } = usePreferences();
  const speech = { on: today, clock, order };
  const tooMany = [
    ...plan.stations
      .filter(({ number }) => number > kind.stationCount)
      .map(({ number }) => say`station ${number}`),
    ...plan.programs
      .filter(({ letter }) => letter > letterAt(kind.programCount - 1))
      .map(({ letter }) => say`program ${letter}`),
  ];
  if (tooMany.length > 0)
    return (
      <p className="fault">
        {say`Not possible yet: this kind has ${plural(kind.stationCount, '# station', '# stations')} and ${plural(kind.programCount, '# program', '# programs')}. Delete first: ${tooMany.join(', ')}.`}
      </p>
    );
  const before = notFitting(plan, plan.timer).map((finding) => findingSentence(finding, speech));
  const after = notFitting(plan, kind).map((finding) => findingSentence(finding, speech));
  const fresh = after.filter((one) => !before.includes(one));
  return (
    <>
      {fresh.length === 0 ? (
        <p>{say`All settings fit this kind.`}</p>
      ) : (
        <>
          <p>{say`The settings stay, but this kind cannot hold:`}</p>
          <ul className="findings stack list">
            {fresh.map((sentence) => (
              <li key={sentence} className="finding aside finding-error">
                {sentence}
              </li>
            ))}
          </ul>
        </>
      )}
      <div>
        <Button type="primary" onClick={take}>{say`Use this kind`}</Button>
      </div>
    </>
  );
}
