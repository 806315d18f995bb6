import { useState } from 'react';
import { Input } from 'antd';
import { faultLine, readPlanText, type Plan, say } from '@water-clock/core';
import { FileButton } from './FileButton.tsx';

/** The server accepts bodies up to a million bytes, five times the largest plan document. */
const MOST_BYTES = 900_000;
const MOST_FAULTS_SHOWN = 8;

const tooLarge = (bytes: number) =>
  say`The document has ${bytes} bytes. The limit is ${MOST_BYTES}.`;

function faultsOf(text: string): { plan: Plan } | { faults: string[] } {
  if (text.length > MOST_BYTES) return { faults: [tooLarge(text.length)] };
  const read = readPlanText(text);
  return read.ok ? { plan: read.value } : { faults: read.faults.map(faultLine) };
}

/** Reads a plan document from a file or pasted text, and shows its faults by path. */
export function PlanDocumentField({ read }: { readonly read: (plan: Plan | null) => void }) {
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [accepted, setAccepted] = useState<string | null>(null);
  const take = (result: { plan: Plan } | { faults: string[] }) => {
    const plan = 'plan' in result ? result.plan : null;
    setFaults('faults' in result ? result.faults : []);
    setAccepted(
      plan &&
        say`${plan.timer.name}: ${plan.stations.length} stations, ${plan.programs.length} programs`,
    );
    read(plan);
  };
  const takeText = (text: string) => take(text.trim() === '' ? { faults: [] } : faultsOf(text));
  const takeFile = (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_BYTES) take({ faults: [tooLarge(file.size)] });
    else void file.text().then(takeText);
  };
  return (
    <div className="stack">
      <FileButton
        label={say`Choose a plan file (.plan.json)`}
        accept=".json,application/json"
        take={([file]) => takeFile(file)}
      />
      <label className="labelled">
        {say`or paste its text`}
        <Input.TextArea
          rows={5}
          spellCheck={false}
          aria-invalid={faults.length > 0}
          onChange={(event) => takeText(event.target.value)}
          status={faults.length > 0 ? 'error' : ''}
        />
      </label>
      {accepted && <p role="status">{say`Loaded: ${accepted}`}</p>}
      {faults.length > 0 && (
        <div role="alert" className="fault">
          <p>{say`This document cannot be imported. Nothing was changed.`}</p>
          <ul>
            {faults.slice(0, MOST_FAULTS_SHOWN).map((fault) => (
              <li key={fault}>{fault}</li>
            ))}
            {faults.length > MOST_FAULTS_SHOWN && (
              <li>{say`and ${faults.length - MOST_FAULTS_SHOWN} more`}</li>
            )}
          </ul>
        </div>
      )}
    </div>
  );
}
