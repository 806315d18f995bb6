import { useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { failureWords, newId, RefusedError } from '../../data/api/request.ts';
import { bringSite, siteKeys } from '../../data/api/sites.ts';
import { say } from '@water-clock/core';

/** Imports a site archive and opens its logbook, or returns its faults. */
export function useImportSite(): {
  readonly refusal: string | null;
  readonly take: (file: File) => void;
} {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [refusal, setRefusal] = useState<string | null>(null);
  // The same file again is the same import, in case the answer was lost.
  const ids = useRef(new Map<string, string>());
  const bring = async (file: File) => {
    const key = `${file.name} ${file.size} ${file.lastModified}`;
    const id = ids.current.get(key) ?? newId();
    ids.current.set(key, id);
    try {
      const { timerIds } = await bringSite(id, file);
      ids.current.delete(key);
      await client.invalidateQueries({ queryKey: siteKeys.all });
      setRefusal(null);
      const [timer] = timerIds;
      if (timer) void navigate(`/timers/${timer}/log`);
    } catch (error) {
      if (error instanceof RefusedError) ids.current.delete(key);
      setRefusal(
        error instanceof RefusedError && error.faults.length > 0
          ? say`Not imported: ${error.faults.map(({ path, message }) => `${path}: ${message}`).join('; ')}.`
          : failureWords(error, say`Not imported`),
      );
    }
  };
  return { refusal, take: (file) => void bring(file) };
}
