import { useState } from 'react';
import { Input } from 'antd';
import { linkStationChange, surveyOf, type Plan, type Survey, say } from '@water-clock/core';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';

interface Props {
  readonly number: number;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
}

/** Serial of a station's decoder; warns at once about duplicates. */
export function DecoderField({ number, plan, survey, editor }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const decoder = surveyOf(survey, number).decoder ?? '';
  const shown = typed ?? decoder;
  const other = plan.stations.find(
    (station) =>
      station.number !== number &&
      shown.trim() !== '' &&
      surveyOf(survey, station.number).decoder?.trim() === shown.trim(),
  );
  const finish = () => {
    const next = shown.trim();
    if (typed !== null && next !== decoder)
      editor.commit({
        type: 'note-station',
        station: number,
        fields: { decoder: next === '' ? null : next },
      });
    setTyped(null);
  };
  return (
    <label className="labelled decoder">
      {say`Decoder`}
      <Input
        aria-label={say`Decoder of station ${number}`}
        value={shown}
        placeholder={say`address or serial`}
        maxLength={200}
        status={other ? 'error' : ''}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={finish}
        onPressEnter={finish}
      />
      {other && <span className="fault">{say`Station ${other.number} has the same decoder.`}</span>}
    </label>
  );
}

/** Which station's run times this one uses, on a timer that links stations. */
export function LinkField({ number, plan, editor }: Omit<Props, 'survey'>) {
  const linkedTo = plan.stations.find((station) => station.number === number)?.linkedTo;
  if (plan.timer.linksStations !== true && linkedTo === undefined) return null;
  const leaders = plan.stations.filter(
    (station) => station.number !== number && station.linkedTo === undefined,
  );
  return (
    <SelectField
      label={say`Linked to`}
      value={linkedTo ?? 0}
      options={[
        [0, say`not linked`] as const,
        ...leaders.map(
          (leader) =>
            [leader.number, say`station ${leader.number} ${leader.name ?? ''}`.trim()] as const,
        ),
      ]}
      pick={(to) => editor.commit(linkStationChange(plan, number, to === 0 ? null : to))}
    />
  );
}
