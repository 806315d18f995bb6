import { Button } from 'antd';
import {
  DEFECT_WORDS,
  DEFECTS,
  URGENCIES,
  URGENCY_WORDS,
  type Defect,
  type NotedDefect,
  say,
} from '@water-clock/core';
import { NoteField } from '../../shared/fields/NoteField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';

/** Faults that may need digging or opening the timer. */
const IN_THE_GROUND: readonly Defect[] = [
  'leak',
  'pooling',
  'valve-stuck-closed',
  'valve-stuck-open',
  'common-broken',
  'open-circuit',
];
const IN_THE_WIRING: readonly Defect[] = [
  'open-circuit',
  'short-circuit',
  'common-broken',
  'solenoid',
  'decoder',
];

/** A fault keyed by name and its index among those of that name, so that a note stays with its fault when another is deleted. */
function keyOf(faults: readonly NotedDefect[], at: number): string {
  const name = faults[at]?.fault ?? '';
  return `${name} ${faults.slice(0, at).filter(({ fault }) => fault === name).length}`;
}

interface Props {
  readonly faults: readonly NotedDefect[];
  readonly set: (faults: readonly NotedDefect[]) => void;
}

/** Faults at a station, each with urgency and a note. */
export function DefectPicker({ faults, set }: Props) {
  const change = (at: number, more: Partial<NotedDefect>) =>
    set(faults.map((defect, i) => (i === at ? { ...defect, ...more } : defect)));
  return (
    <div className="faults stack near">
      {faults.map(({ fault, severity, note }, i) => (
        <div
          key={keyOf(faults, i)}
          className={severity === 'at-once' ? 'row aside alarm' : 'row aside'}
        >
          <strong>{DEFECT_WORDS[fault]}</strong>
          <SelectField
            value={severity}
            options={URGENCIES.map((one) => [one, URGENCY_WORDS[one]] as const)}
            pick={(value) => change(i, { severity: value })}
            aria-label={say`Urgency: ${DEFECT_WORDS[fault]}`}
          />
          <NoteField
            label={say`Note: ${DEFECT_WORDS[fault]}`}
            placeholder={say`where, how many, ohms`}
            most={200}
            value={note ?? ''}
            commit={(text) => change(i, { note: text })}
          />
          <Button
            aria-label={say`Delete: ${DEFECT_WORDS[fault]}`}
            onClick={() => set(faults.filter((_, at) => at !== i))}
          >
            ×
          </Button>
        </div>
      ))}
      {faults.some(({ fault }) => IN_THE_GROUND.includes(fault)) && (
        <p className="caution">{say`Locate buried services before you dig.`}</p>
      )}
      {faults.some(({ fault }) => IN_THE_WIRING.includes(fault)) && (
        <p className="caution">{say`Mains voltage inside a wall timer. Isolate it before you open the wiring compartment.`}</p>
      )}
      {faults.some(({ fault }) => fault === 'overspray') && (
        <p className="caution">{say`Water on paths is slippery and can freeze.`}</p>
      )}
      <SelectField<Defect | ''>
        aria-label={say`Add fault`}
        placeholder={say`Add fault …`}
        value=""
        options={DEFECTS.map((one) => [one, DEFECT_WORDS[one]] as const)}
        pick={(fault) => fault !== '' && set([...faults, { fault, severity: 'soon' }])}
      />
    </div>
  );
}
