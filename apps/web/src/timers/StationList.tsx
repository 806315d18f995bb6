import { useState } from 'react';
import { Button } from 'antd';
import { removeStationChange, type Plan, type Station } from '@water-clock/core';
import type { TimerEditor } from './editor.ts';

function StationRow({
  station,
  plan,
  editor,
}: {
  station: Station;
  plan: Plan;
  editor: TimerEditor;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const finish = () => {
    if (typed === null) return;
    setTyped(null);
    const name = typed.trim() === '' ? null : typed.trim();
    if (name !== (station.name ?? null))
      editor.commit({ type: 'name-station', station: station.number, name });
  };
  const programs = plan.programs
    .filter(({ runs }) => runs.some((run) => run.station === station.number && run.seconds > 0))
    .map(({ letter }) => letter);
  return (
    <li className="station">
      <b className="station-number">{station.number}</b>
      <input
        className="field"
        aria-label={`Name of station ${station.number}`}
        placeholder="what it waters"
        maxLength={80}
        value={typed ?? station.name ?? ''}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish();
          if (event.key === 'Escape') setTyped(null);
        }}
      />
      <span className="soft">
        {programs.length > 0 ? `in ${programs.join(', ')}` : 'in no program'}
      </span>
      <button
        type="button"
        className="plain-button"
        aria-label={`Take out station ${station.number}`}
        onClick={() => editor.commit(removeStationChange(plan, station.number))}
      >
        Take out
      </button>
    </li>
  );
}

/** The stations by the number of their terminal, with what they water. */
export function StationList({
  plan,
  editor,
}: {
  readonly plan: Plan;
  readonly editor: TimerEditor;
}) {
  const free = Array.from({ length: plan.timer.stationCount }, (_, i) => i + 1).find(
    (number) => !plan.stations.some((station) => station.number === number),
  );
  return (
    <div className="stations">
      <ul>
        {plan.stations.map((station) => (
          <StationRow key={station.number} station={station} plan={plan} editor={editor} />
        ))}
      </ul>
      <Button
        disabled={free === undefined}
        onClick={() =>
          free !== undefined && editor.commit({ type: 'add-station', station: { number: free } })
        }
      >
        {free === undefined
          ? `All ${plan.timer.stationCount} stations of this timer are there`
          : `Add station ${free}`}
      </Button>
    </div>
  );
}
