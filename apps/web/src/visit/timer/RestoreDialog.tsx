import { Modal } from 'antd';
import { useQuery } from '@tanstack/react-query';
import type { Language, Plan, Visit } from '@water-clock/core';
import { loadVisit, useVisits, visitKeys } from '../../data/api/visits.ts';
import { Loading } from '../../app/platform/states.tsx';
import { RestoreWords } from '../log/RestoreWords.tsx';
import { say } from '@water-clock/core';

interface Props {
  readonly timerId: string;
  readonly plan: Plan;
  /** The open visit, if any. */
  readonly visit: Visit | undefined;
  /** Language of the site; null: not chosen. */
  readonly language: Language | null;
  readonly close: () => void;
}

/** Settings in the timer's memory, as a visit noted; null: not noted. */
function savedPlan({ savedInside, asFound, asLeft }: Visit): Plan | null {
  if (savedInside?.state === 'as-found') return asFound?.plan ?? null;
  return savedInside?.state === 'as-left' ? (asLeft?.plan ?? null) : null;
}

/** Talks a homeowner through a restore, at any time. */
export default function RestoreDialog({ timerId, plan, visit, language, close }: Props) {
  const visits = useVisits(timerId);
  const last = visits.data?.find((one) => one.visit.savedInside !== undefined);
  const entry = useQuery({
    queryKey: visitKeys.one(last?.id ?? ''),
    queryFn: () => loadVisit(last?.id ?? ''),
    enabled: last !== undefined,
  });
  const isPending = visits.isPending || (last !== undefined && entry.isPending);
  const saved = (visit && savedPlan(visit)) ?? (entry.data ? savedPlan(entry.data.visit) : null);
  return (
    <Modal open title={say`Restore by phone`} onCancel={close} footer={null}>
      {isPending ? (
        <Loading what={say`the saved settings`} />
      ) : (
        <>
          {saved === null && (
            <p className="caution">{say`No visit recorded what is saved in this timer. The check below uses the current settings. A restore may load older ones.`}</p>
          )}
          <RestoreWords plan={saved ?? plan} language={language} />
        </>
      )}
    </Modal>
  );
}
