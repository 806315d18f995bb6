import { useState } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Alert, Button, Progress } from 'antd';
import { request } from '../../data/api/request.ts';
import { useLines } from '../../data/api/lines.ts';
import { FileButton } from '../../shared/fields/FileButton.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { plural, say } from '@water-clock/core';

/** The whole company as one file: export, and import into an empty company. */
export function CompanyArchive() {
  const { clock, order } = usePreferences();
  const client = useQueryClient();
  const lines = useLines({ size: 1 }, { clock, order });
  const [share, setShare] = useState({ done: 0, of: 1 });
  const bring = useMutation({
    mutationFn: async (file: File) => {
      const { importCompany } = await import('../../data/api/companyArchive.ts');
      return importCompany(file, (done, of) => setShare({ done, of }));
    },
    onSettled: () => client.invalidateQueries(),
  });
  // A file is no request of ours, so the password is asked for first.
  const save = useMutation({
    mutationFn: () => request<undefined>('GET', '/api/session/confirm'),
    onSuccess: () => location.assign('/api/company/archive'),
  });
  const isEmpty = lines.data?.counts.all === 0;
  return (
    <section className="stack" aria-labelledby="company-archive">
      <h2 id="company-archive">{say`Company export`}</h2>
      <p className="soft">{say`The library and all sites with their timers, surveys, logbooks and photos, as open documents in one ZIP file. People and passwords are not included.`}</p>
      <div className="row near">
        <Button loading={save.isPending} onClick={() => save.mutate()}>
          {say`Export the company (.zip)`}
        </Button>
        {isEmpty && (
          <FileButton
            label={say`Import a company (.zip)`}
            accept=".zip,application/zip"
            take={([file]) => file && bring.mutate(file)}
          />
        )}
      </div>
      {lines.data && !isEmpty && !bring.isPending && (
        <p className="soft">{say`You can import a company only while yours has no sites.`}</p>
      )}
      {bring.isPending && (
        <Progress percent={Math.floor((100 * share.done) / Math.max(1, share.of))} />
      )}
      {bring.data && (
        <Alert
          type={bring.data.refused.length > 0 ? 'warning' : 'success'}
          role="status"
          title={plural(
            bring.data.sites - bring.data.refused.length,
            '1 site imported.',
            '# sites imported.',
          )}
          description={bring.data.refused.join(' ') || undefined}
        />
      )}
      {[bring, save].map(
        ({ error }, i) =>
          error && <Alert key={i} type="error" role="alert" title={error.message} />,
      )}
    </section>
  );
}
