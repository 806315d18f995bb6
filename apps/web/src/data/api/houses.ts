/** Sites with all their timers: placing, archiving and deleting. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Plan, Survey } from '@water-clock/core';
import { newId, request } from './request.ts';
import { siteKeys, type Site } from './sites.ts';

export interface HouseTimer {
  readonly id: string;
  /** Empty if the timer goes by its kind. */
  readonly name: string;
  /** Version of name, site and archive state. */
  readonly placeVersion: number;
  readonly siteId: string;
  readonly isArchived: boolean;
  readonly version: number;
  readonly plan: Plan;
  readonly survey: Survey;
}

export interface House extends Site {
  readonly isArchived: boolean;
  readonly timers: readonly HouseTimer[];
}

export const nameOf = ({ name, plan }: Pick<HouseTimer, 'name' | 'plan'>): string =>
  name || plan.timer.name;

export const useHouse = (id: string) =>
  useQuery({
    queryKey: siteKeys.one(id),
    queryFn: () => request<House>('GET', `/api/sites/${encodeURIComponent(id)}`),
  });

/** Actions on sites and timers show in every list of them. */
function useHouseAct<In, Out>(act: (given: In) => Promise<Out>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: () => client.invalidateQueries({ queryKey: siteKeys.all }),
  });
}

export type NewTimer = {
  readonly siteId: string;
  readonly timerId: string;
  readonly name: string;
} & ({ readonly plan: Plan } | { readonly copyOf: string; readonly withSurvey: boolean });

export const useAddTimer = () =>
  useHouseAct(({ siteId, ...body }: NewTimer) =>
    request<{ timerId: string }>('POST', `/api/sites/${siteId}/timers`, body),
  );

export const usePlace = () =>
  useHouseAct(
    ({
      timer,
      to,
    }: {
      readonly timer: HouseTimer;
      readonly to: Partial<Pick<HouseTimer, 'name' | 'siteId' | 'isArchived'>>;
    }) =>
      request<HouseTimer>('POST', `/api/timers/${timer.id}/place`, {
        ...{ id: newId(), baseVersion: timer.placeVersion },
        ...{ name: timer.name, siteId: timer.siteId, isArchived: timer.isArchived, ...to },
      }),
  );

export const useSiteState = () =>
  useHouseAct(({ house, isArchived }: { readonly house: House; readonly isArchived: boolean }) =>
    request<House>('POST', `/api/sites/${house.id}/state`, {
      ...{ id: newId(), baseVersion: house.version, isArchived },
    }),
  );

export const useDeletePersonalData = () =>
  useHouseAct((house: House) =>
    request<House>('POST', `/api/sites/${house.id}/personal-data/deletion`, {
      ...{ id: newId(), baseVersion: house.version },
    }),
  );

/** Permanent. */
export const useDeletion = () =>
  useHouseAct(({ of, id, name }: { readonly of: 'sites' | 'timers'; id: string; name: string }) =>
    request<undefined>('POST', `/api/${of}/${id}/deletion`, { id: newId(), name }),
  );
