import { useState } from 'react';
import { Button } from 'antd';
import {
  findingSentence,
  kindChange,
  letterAt,
  notFitting,
  type EpochDay,
  stationName,
  type Plan,
  type Survey,
  type Timer,
  plural,
  say,
  sayText,
} from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { InUseField, KindSelect } from './KindSelect.tsx';

interface Props {
  readonly plan: Plan;
  /** Of the timer whose kind changes; absent: only abilities are taken over. */
  readonly survey?: Survey | undefined;
  readonly editor: Pick<TimerEditor, 'commit'>;
  readonly today: EpochDay;
}

/** Changes the timer's kind, after saying what would no longer fit. */
export function KindPicker({ plan, survey, editor, today }: Props) {
  const [name, setName] = useState('');
  const [inUse, setInUse] = useState<number | null>(null);
  const kinds = useLibrary('kinds');
  const kind = kinds.data?.find(({ id }) => id === name)?.document;
  const most = kind?.timer.stationCount ?? 1;
  const used = Math.min(inUse ?? plan.stations.length, most);
  return (
    <section className="kind-picker stack whole">
      <KindSelect
        label={say`Start from another timer kind`}
        value={name}
        options={[
          ['', say`leave as is`] as const,
          ...(kinds.data ?? []).map(
            ({ id, document }) => [id, sayText(document.timer.name)] as const,
          ),
        ]}
        pick={(value) => {
          setName(value);
          setInUse(null);
        }}
      />
      {kind && survey && <InUseField value={used} most={most} set={setInUse} />}
      {kind && (
        <Preview
          plan={plan}
          kind={kind.timer}
          inUse={survey ? used : null}
          today={today}
          take={() => {
            editor.commit(
              survey
                ? kindChange({ plan, survey }, kind, used)
                : { type: 'set-timer', timer: kind.timer },
            );
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
  inUse,
  today,
  take,
}: {
  readonly plan: Plan;
  readonly kind: Timer;
  /** Stations that stay; null: all. */
  readonly inUse: number | null;
  readonly today: EpochDay;
  readonly take: () => void;
}) {
  const { clock, order } = usePreferences();
  const speech = { on: today, clock, order };
  const tooMany = [
    ...plan.stations
      .filter(({ number }) => inUse === null && number > kind.stationCount)
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
  const leaving = plan.stations.filter(({ number }) => inUse !== null && number > inUse);
  return (
    <>
      {leaving.length > 0 && (
        <p className="fault">
          {say`Deletes with its run times: ${leaving.map(stationName).join(', ')}.`}
        </p>
      )}
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
