import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { newId, RefusedError } from '../api/request.ts';
import { bringSite, siteKeys } from '../api/sites.ts';

/** Takes a whole site in as a file, and goes to its logbook; what is wrong with the file otherwise. */
export function useImportSite(): {
  readonly refusal: string | null;
  readonly take: (file: File) => void;
} {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [refusal, setRefusal] = useState<string | null>(null);
  const bring = async (file: File) => {
    try {
      const { timerIds } = await bringSite(newId(), file);
      await client.invalidateQueries({ queryKey: siteKeys.all });
      setRefusal(null);
      const [timer] = timerIds;
      if (timer) void navigate(`/timers/${timer}/log`);
    } catch (error) {
      setRefusal(
        error instanceof RefusedError
          ? `Not imported: ${error.faults.map(({ path, message }) => `${path}: ${message}`).join('; ')}.`
          : 'Not imported: the server cannot be reached.',
      );
    }
  };
  return { refusal, take: (file) => void bring(file) };
}
