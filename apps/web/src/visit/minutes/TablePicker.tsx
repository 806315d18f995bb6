import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { say, SHIPPED_MINUTES_ID } from '@water-clock/core';
import { isZone } from '../../app/platform/zone.ts';
import { useLibrary } from '../../data/api/library.ts';
import { failureWords, newId } from '../../data/api/request.ts';
import { useChangeSite, type Site } from '../../data/api/sites.ts';
import { timerKeys, type TimerView } from '../../data/api/timers.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { formOf, readSiteForm } from '../house/siteForm.ts';

/** The table of minutes for this site. It belongs to the site, so it is saved with its details. */
export function TablePicker({ site, timerId }: { readonly site: Site; readonly timerId: string }) {
  const client = useQueryClient();
  const tables = useLibrary('minutes');
  const change = useChangeSite(site.id);
  const [fault, setFault] = useState<string | null>(null);
  const pick = (minutesId: string) => {
    const read = readSiteForm({ ...formOf(site), minutesId }, isZone);
    if ('faults' in read) return setFault(say`Not saved: correct the details of the house first.`);
    setFault(null);
    change.mutate(
      { id: newId(), baseVersion: site.version, site: read.site },
      {
        onSuccess: (now) =>
          client.setQueryData<TimerView>(
            timerKeys.one(timerId),
            (view) => view && { ...view, site: now },
          ),
        onError: (error) => {
          setFault(failureWords(error, say`Not saved`));
          // After someone else's change, the next choice is based on theirs.
          void client.invalidateQueries({ queryKey: timerKeys.one(timerId) });
        },
      },
    );
  };
  return (
    <div>
      <SelectField
        label={say`Minutes table`}
        value={site.minutesId ?? SHIPPED_MINUTES_ID}
        disabled={change.isPending}
        options={(tables.data ?? []).map(({ id, document }) => [id, document.name] as const)}
        pick={pick}
      />
      {fault !== null && (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
    </div>
  );
}
