/** Members, invitations, and mail to them. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Role } from './people.ts';
import { newId, request } from './request.ts';

export interface Member {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly version: number;
  readonly secondFactor: boolean;
  /** ISO instant; null while a member. */
  readonly takenOutAt: string | null;
}

export interface Invitation {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly madeAt: string;
  readonly expiresAt: string;
}

export interface Mail {
  readonly id: string;
  readonly at: string;
  readonly recipient: string;
  readonly subject: string;
  /** Empty once sent. */
  readonly text: string;
  readonly state: 'sent' | 'waiting' | 'failed' | 'kept';
}

const keys = {
  people: ['people'] as const,
  invitations: ['invitations'] as const,
  mails: ['mails'] as const,
};

/** Invited people join while the page is open. */
const EVERY_MILLISECONDS = 15_000;

export const usePeople = () =>
  useQuery({
    queryKey: keys.people,
    queryFn: () => request<Member[]>('GET', '/api/people'),
    refetchInterval: EVERY_MILLISECONDS,
  });

export const useInvitations = () =>
  useQuery({
    queryKey: keys.invitations,
    queryFn: () => request<Invitation[]>('GET', '/api/invitations'),
    refetchInterval: EVERY_MILLISECONDS,
  });

export const useMails = () =>
  useQuery({ queryKey: keys.mails, queryFn: () => request<Mail[]>('GET', '/api/mails') });

/** Actions on people show in all three lists. */
function useTeamAct<In>(act: (given: In) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: act,
    onSettled: () =>
      Promise.all(Object.values(keys).map((queryKey) => client.invalidateQueries({ queryKey }))),
  });
}

export interface NewInvitation {
  readonly id: string;
  readonly token: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
}

export const useInvite = () =>
  useTeamAct((body: NewInvitation) => request<Invitation>('POST', '/api/invitations', body));

export const useWithdraw = () =>
  useTeamAct((id: string) => request<undefined>('POST', `/api/invitations/${id}/withdraw`));

/** An owner's action on a member. */
export type MemberAct = { readonly role: Role } | 'removal' | 'second-factor/off';

export const useMemberAct = () =>
  useTeamAct(({ member, act }: { readonly member: Member; readonly act: MemberAct }) => {
    const write = { id: newId(), baseVersion: member.version };
    const [place, body] =
      typeof act === 'string' ? [act, write] : (['role', { ...write, ...act }] as const);
    return request<Member>('POST', `/api/people/${member.id}/${place}`, body);
  });

export const usePasswordLink = () =>
  useTeamAct(({ person, ...body }: { readonly person: string; id: string; token: string }) =>
    request<undefined>('POST', `/api/people/${person}/password-link`, body),
  );
