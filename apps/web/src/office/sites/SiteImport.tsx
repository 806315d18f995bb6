import { useState } from 'react';
import { Alert, Button, Modal, Progress } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import {
  plural,
  MOST_SITE_ROWS,
  readSiteTable,
  SHIPPED_KINDS,
  SITE_HEADINGS,
  type SiteTable,
  say,
} from '@water-clock/core';
import { useLibrary } from '../../data/api/library.ts';
import { failureWords, newId } from '../../data/api/request.ts';
import { bringSites, siteKeys, SITES_AT_ONCE, type ImportedSite } from '../../data/api/sites.ts';
import { CellFaults, CellTable } from '../../shared/fields/CellTable.tsx';
import { FileButton } from '../../shared/fields/FileButton.tsx';
import { rowsOf, saveCsv } from '../../app/platform/csv.ts';
import { deviceZone, isZone } from '../../app/platform/zone.ts';

/** Default for rows that name no kind. */
const USUAL_KIND = SHIPPED_KINDS[2] ?? SHIPPED_KINDS[0];

interface Part {
  /** Id of the write, made once: sent again, it is done once. */
  readonly id: string;
  readonly sites: readonly ImportedSite[];
}

function partsOf({ entries }: SiteTable): Part[] {
  const all = entries.map(({ site, kindId }) => ({
    siteId: newId(),
    timerId: newId(),
    kindId,
    site,
  }));
  return Array.from({ length: Math.ceil(all.length / SITES_AT_ONCE) }, (_, i) => ({
    id: newId(),
    sites: all.slice(i * SITES_AT_ONCE, (i + 1) * SITES_AT_ONCE),
  }));
}

/** Imports sites from a spreadsheet: first a preview with each bad cell marked, then the import. */
export default function SiteImport({ close }: { readonly close: () => void }) {
  const client = useQueryClient();
  const kinds = useLibrary('kinds');
  const [read, setRead] = useState<{
    readonly rows: readonly string[][];
    readonly table: SiteTable;
    readonly parts: readonly Part[];
  } | null>(null);
  const [done, setDone] = useState(0);
  const [isBusy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const parts = read?.parts ?? [];
  const count = read?.table.entries.length ?? 0;
  const isOver = parts.length > 0 && done === parts.length;
  const open = async (file: File) => {
    setFault(null);
    setDone(0);
    try {
      const rows = await rowsOf(file, MOST_SITE_ROWS);
      const named = (kinds.data ?? []).map(({ id, document }) => ({
        id,
        name: document.timer.name,
      }));
      const usual = { id: USUAL_KIND?.id ?? '', name: USUAL_KIND?.kind.timer.name ?? '' };
      const table = readSiteTable(rows, {
        timeZone: deviceZone(),
        isZone,
        kinds: [usual, ...named],
      });
      setRead({ rows, table, parts: partsOf(table) });
    } catch (error) {
      setFault(say`${file.name} cannot be read: ${error instanceof Error ? error.message : ''}`);
    }
  };
  const bring = async () => {
    setBusy(true);
    setFault(null);
    let at = done;
    try {
      for (const { id, sites } of parts.slice(done)) {
        await bringSites(id, sites);
        setDone((at += 1));
      }
    } catch (error) {
      setFault(failureWords(error, say`Only the first ${at * SITES_AT_ONCE} lines were imported`));
    }
    setBusy(false);
    await client.invalidateQueries({ queryKey: siteKeys.all });
  };
  return (
    <Modal
      open
      width={1000}
      title={say`Sites from a spreadsheet`}
      onCancel={close}
      footer={
        isOver
          ? [<Button key="done" type="primary" onClick={close}>{say`Done`}</Button>]
          : [
              <Button key="leave" onClick={close}>{say`Cancel`}</Button>,
              <Button
                key="take"
                type="primary"
                disabled={count === 0}
                loading={isBusy}
                onClick={() => void bring()}
              >
                {done > 0 ? say`Continue` : count > 0 ? say`Import ${count} sites` : say`Import`}
              </Button>,
            ]
      }
    >
      <div className="stack">
        <p>{say`A CSV file with a column “name”. Marked cells are skipped. Rows without a name or with an unknown timer kind are skipped entirely.`}</p>
        <div className="row near">
          <FileButton
            label={say`Choose a CSV file`}
            accept=".csv,text/csv"
            take={([file]) => file && void open(file)}
          />
          <Button
            onClick={() => saveCsv('sites.csv', [[...SITE_HEADINGS]])}
          >{say`Download template`}</Button>
        </div>
        {isOver && (
          <Alert type="success" title={plural(count, '1 site imported.', '# sites imported.')} />
        )}
        {fault && <Alert type="error" title={fault} />}
        {(isBusy || done > 0) && !isOver && (
          <Progress percent={Math.round((100 * done) / Math.max(1, parts.length))} />
        )}
        {read && <CellFaults faults={read.table.faults} />}
        {read && !isOver && read.rows.length <= MOST_SITE_ROWS + 1 && (
          <CellTable rows={read.rows} faults={read.table.faults} />
        )}
      </div>
    </Modal>
  );
}
