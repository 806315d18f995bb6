import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import {
  NO_OFFICE,
  OFFICE_ID,
  SHIPPED_KINDS,
  SHIPPED_MINUTES,
  SHIPPED_MINUTES_ID,
  type ClimateDocument,
  type MinutesTable,
  type Office,
  type Rules,
  type Task,
  type TimerKind,
} from '@water-clock/core';
import { request } from './request.ts';
import { visitKeys } from './visits.ts';

/** Shelves of the company's library, each with documents of one open format. */
export interface Shelves {
  readonly rules: Rules;
  readonly kinds: TimerKind;
  readonly minutes: MinutesTable;
  readonly climates: ClimateDocument;
  /** One document: the company's own details. */
  readonly office: Office;
  /** Bench tasks of the company, besides those that ship. */
  readonly tasks: Task;
}
export type Shelf = keyof Shelves;
/** Shelves with a page in the library. */
export type PagedShelf = Exclude<Shelf, 'office' | 'tasks'>;

export interface LibraryItem<D> {
  readonly id: string;
  /** 0: shipped and not changed by the company. */
  readonly version: number;
  readonly document: D;
  readonly ships: boolean;
}

interface Entry<D> {
  readonly id: string;
  readonly version: number;
  readonly document: D | null;
}

const SHIPPED: { readonly [S in Shelf]: readonly { id: string; document: Shelves[S] }[] } = {
  rules: [],
  kinds: SHIPPED_KINDS.map(({ id, kind }) => ({ id, document: kind })),
  minutes: [{ id: SHIPPED_MINUTES_ID, document: SHIPPED_MINUTES }],
  climates: [],
  office: [{ id: OFFICE_ID, document: NO_OFFICE }],
  tasks: [],
};

const libraryKeys = { shelf: (shelf: Shelf) => ['library', shelf] as const };

/** A shelf's own and shipped documents; the company's own replaces a shipped one with the same id. */
export function itemsOf<S extends Shelf>(
  shelf: S,
  entries: readonly Entry<Shelves[S]>[],
): LibraryItem<Shelves[S]>[] {
  const shipped = SHIPPED[shelf];
  const own = entries.flatMap(({ id, version, document }) =>
    document === null
      ? []
      : [{ id, version, document, ships: shipped.some((one) => one.id === id) }],
  );
  const rest = shipped
    .filter(({ id }) => !own.some((one) => one.id === id))
    .map(({ id, document }) => ({
      id,
      version: entries.find((entry) => entry.id === id)?.version ?? 0,
      document,
      ships: true,
    }));
  return [...rest, ...own];
}

export const useLibrary = <S extends Shelf>(shelf: S) =>
  useQuery({
    queryKey: libraryKeys.shelf(shelf),
    queryFn: () => request<Entry<Shelves[S]>[]>('GET', `/api/library/${shelf}`),
    select: (entries) => itemsOf(shelf, entries),
  });

export interface LibraryWrite {
  readonly id: string;
  readonly baseVersion: number;
  readonly document: object | null;
}

export function useKeepDocument(shelf: Shelf) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ target, ...write }: LibraryWrite & { readonly target: string }) =>
      request<{ version: number }>('POST', `/api/library/${shelf}/${target}/changes`, write),
    onSettled: () =>
      // Homeowner's pages mention the rules and the company's phone number.
      Promise.all(
        [libraryKeys.shelf(shelf), visitKeys.pages].map((queryKey) =>
          client.invalidateQueries({ queryKey }),
        ),
      ),
  });
}
