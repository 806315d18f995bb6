/** How one brief differs from another, as values to set (planning.md section 3, `apply`). */
import type { Brief } from '../brief/brief.ts';
import { pathText, type Path } from '../document/fault.ts';

export interface BriefChange {
  /** Dotted path, such as `wish.finishBy` or `stations[0].days`. */
  readonly path: string;
  /** Null: remove the field. */
  readonly value: unknown;
}

const PARTS = ['timer', 'settings', 'rules', 'mowing', 'wish'] as const;

function fieldsOf(path: Path, before: object, after: object): BriefChange[] {
  const [old, made] = [before, after].map((record) => new Map(Object.entries(record)));
  return [...new Set([...(old?.keys() ?? []), ...(made?.keys() ?? [])])].flatMap((key) => {
    const value: unknown = made?.get(key);
    return JSON.stringify(old?.get(key)) === JSON.stringify(value)
      ? []
      : [{ path: pathText([...path, key]), value: value ?? null }];
  });
}

/** Fields in which two briefs for the same stations differ. */
export function briefChanges(before: Brief, after: Brief): BriefChange[] {
  const parts = PARTS.flatMap((part): BriefChange[] => {
    const [old, made] = [before[part], after[part]];
    if (JSON.stringify(old) === JSON.stringify(made)) return [];
    if (!old || !made) return [{ path: part, value: made ?? null }];
    return fieldsOf([part], old, made);
  });
  const stations = before.stations.flatMap((station, i) =>
    fieldsOf(['stations', i], station, after.stations[i] ?? {}),
  );
  return [...parts, ...stations];
}
