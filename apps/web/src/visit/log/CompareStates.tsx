import { useState } from 'react';
import { Button } from 'antd';
import { useQuery } from '@tanstack/react-query';
import { planDifferences, type Plan, say } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Differences } from './Differences.tsx';
import { loadVisit, visitKeys } from '../../data/api/visits.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';

/** A state of the timer: current, or from a visit in the logbook, loaded when chosen. */
export interface State {
  readonly key: string;
  readonly name: string;
  readonly of:
    { readonly plan: Plan } | { readonly visit: string; readonly which: 'asFound' | 'asLeft' };
}

/** Plan of a state; null while loading. */
function usePlanOf(state: State | undefined): Plan | null {
  const visit = state && 'visit' in state.of ? state.of.visit : null;
  const { data } = useQuery({
    queryKey: visitKeys.one(visit ?? ''),
    queryFn: () => loadVisit(visit ?? ''),
    enabled: visit !== null,
    staleTime: Infinity,
  });
  if (!state) return null;
  if ('plan' in state.of) return state.of.plan;
  return data?.visit[state.of.which]?.plan ?? null;
}

interface Props {
  readonly states: readonly State[];
  /** Core's refusal as a message, or null if it was set. */
  readonly restore: (plan: Plan) => string | null;
}

/** Compares any two states and restores any of them. */
export function CompareStates({ states, restore }: Props) {
  const { clock } = usePreferences();
  const [from, setFrom] = useState<string | null>(null);
  const [to, setTo] = useState('now');
  const [told, setTold] = useState<string | null>(null);
  const a = states.find(({ key }) => key === from) ?? states.find(({ key }) => key !== 'now');
  const b = states.find(({ key }) => key === to);
  const [planA, planB] = [usePlanOf(a), usePlanOf(b)];
  const choice = (label: string, value: string, set: (key: string) => void) => (
    <SelectField
      label={label}
      value={value}
      options={states.map(({ key, name }) => [key, name] as const)}
      pick={(value) => set(value)}
    />
  );
  return (
    <section aria-label={say`Compare`}>
      <h2>{say`Compare and restore`}</h2>
      <div className="sighting-fields row at-foot">
        {choice(say`This`, a?.key ?? 'now', setFrom)}
        {choice(say`With`, to, setTo)}
        {a && a.key !== 'now' && planA && (
          <Button
            onClick={() => setTold(restore(planA) ?? say`${a.name} restored. You can undo this.`)}
          >{say`Restore “${a.name}”`}</Button>
        )}
      </div>
      {told && <p role="status">{told}</p>}
      {planA && planB ? (
        <Differences
          rows={planDifferences(planA, planB, clock)}
          none={say`Both have the same settings.`}
          before={a?.name ?? ''}
          after={b?.name ?? ''}
        />
      ) : (
        <p className="soft">{say`One moment …`}</p>
      )}
    </section>
  );
}
