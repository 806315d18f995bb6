import { useState } from 'react';
import { failureWords, newId, RefusedError } from '../../data/api/request.ts';
import {
  useKeepDocument,
  type LibraryItem,
  type Shelf,
  type Shelves,
} from '../../data/api/library.ts';
import { say } from '@water-clock/core';

export interface Draft<D> {
  readonly document: D;
  readonly change: (document: D) => void;
  readonly changed: boolean;
  readonly save: () => void;
  readonly saving: boolean;
  readonly saved: boolean;
  /** Faults by path, as messages; empty if there are none. */
  readonly faults: readonly string[];
  /** Someone else saved in the meantime: their document, or null if they deleted it. */
  readonly theirs: { readonly version: number; readonly document: D | null } | null;
  readonly resolve: (choice: 'theirs' | 'mine') => void;
}

/** A library document being edited: saved as a whole, with one id for each content, on the version it was based on. */
export function useDocument<S extends Shelf>(
  shelf: S,
  item: LibraryItem<Shelves[S]>,
): Draft<Shelves[S]> {
  type D = Shelves[S];
  const keep = useKeepDocument(shelf);
  const [document, setDocument] = useState<D>(item.document);
  const [base, setBase] = useState(item.version);
  const [id, setId] = useState(newId);
  const [changed, setChanged] = useState(false);
  const [theirs, setTheirs] = useState<Draft<D>['theirs']>(null);
  const [faults, setFaults] = useState<readonly string[]>([]);
  return {
    document,
    changed,
    faults,
    theirs,
    saving: keep.isPending,
    saved: keep.isSuccess && !changed,
    change: (next) => {
      setDocument(next);
      setChanged(true);
      setId(newId());
    },
    save: () =>
      keep.mutate(
        { target: item.id, id, baseVersion: base, document },
        {
          onSuccess: ({ version }) => {
            setBase(version);
            setChanged(false);
            setFaults([]);
          },
          onError: (error) => {
            if (error instanceof RefusedError && error.code === 'stale-version') {
              // Safe cast: our own server answers a stale write with the current document.
              setTheirs(error.body['current'] as NonNullable<Draft<D>['theirs']>);
              return;
            }
            setFaults(
              error instanceof RefusedError && error.faults.length > 0
                ? error.faults.map(({ path, message }) => `${path}: ${message}`)
                : [failureWords(error, say`Not saved`)],
            );
          },
        },
      ),
    resolve: (choice) => {
      if (!theirs) return;
      setBase(theirs.version);
      setId(newId());
      if (choice === 'theirs' && theirs.document) {
        setDocument(theirs.document);
        setChanged(false);
      }
      setTheirs(null);
    },
  };
}
