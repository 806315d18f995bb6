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
  /** What is wrong, by place, in words; empty where nothing is. */
  readonly faults: readonly string[];
  /** Somebody else saved meanwhile: theirs, or null where they took it out. */
  readonly theirs: { readonly version: number; readonly document: D | null } | null;
  readonly resolve: (choice: 'theirs' | 'mine') => void;
}

/** A document of the library while it is edited: saved as a whole, with one id for each content, against the version it was based on. */
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
              // The cast trusts our own server: a stale write is answered with the present state.
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
