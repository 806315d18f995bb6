import { useRef, useState } from 'react';
import { Button } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { dateWords, parseDate } from '@water-clock/core';
import { failureWords, newId, RefusedError } from '../api/request.ts';
import { MadeLink } from '../platform/MadeLink.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { newToken } from '../platform/token.ts';
import type { StepProps } from '../steps/stepProps.ts';
import {
  cardPdfPath,
  makeLink,
  pagePdfPath,
  useLinks,
  usePage,
  visitKeys,
  withdrawLink,
} from '../api/visits.ts';
import { OfficeFields } from './OfficeFields.tsx';
import { HomeownerSheet } from './HomeownerSheet.tsx';
import { SelectField } from '../fields/SelectField.tsx';

const DAYS = [
  [30, 'a month'],
  [180, 'half a year'],
  [365, 'a year'],
] as const;

/** The homeowner's page: as it is, on paper, and as a private link. */
export default function PageView(props: StepProps & { readonly version: number }) {
  const { order } = usePreferences();
  const { timerId, version, today } = props;
  const page = usePage(timerId, version);
  const links = useLinks(timerId);
  const client = useQueryClient();
  const [days, setDays] = useState(365);
  const [made, setMade] = useState<{ id: string; address: string } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const link = useRef<{ readonly id: string; readonly token: string } | null>(null);
  if (page.isPending) return <Loading what="the page" />;
  if (page.isError)
    return <Failed what="The page" error={page.error} retry={() => void page.refetch()} />;
  const again = () => client.invalidateQueries({ queryKey: visitKeys.links(timerId) });
  const make = async () => {
    // If the answer is lost on the way, the same link is made again, once.
    link.current ??= { id: newId(), token: newToken() };
    const { id, token } = link.current;
    try {
      await makeLink(timerId, { id, token, days });
      setMade({ id, address: `${location.origin}/page#${token}` });
      setFault(null);
      link.current = null;
      await again();
    } catch (error) {
      if (error instanceof RefusedError) link.current = null;
      setFault(failureWords(error, 'No link was made'));
    }
  };
  const day = (moment: string) => dateWords(parseDate(moment.slice(0, 10)) ?? today, today, order);
  return (
    <div className="survey-view stack page-column">
      <div className="files row near">
        <Button type="primary" size="large" href={pagePdfPath(timerId, 'a4')} target="_blank">
          PDF, A4
        </Button>
        <Button size="large" href={pagePdfPath(timerId, 'letter')} target="_blank">
          PDF, Letter
        </Button>
        <Button size="large" href={cardPdfPath(timerId, 'a6')} target="_blank">
          Card for the box, A6
        </Button>
        <Button size="large" href={cardPdfPath(timerId, '4x6')} target="_blank">
          Card, 4 × 6 in
        </Button>
        <SelectField
          aria-label="Good for"
          value={days}
          options={DAYS.map(([one, words]) => [one, `good for ${words}`] as const)}
          pick={(value) => setDays(Number(value))}
        />
        <Button size="large" onClick={() => void make()}>
          Make a private link
        </Button>
      </div>
      {made && <MadeLink address={made.address}>Copy it now; it is shown once:</MadeLink>}
      {fault && <p className="fault">{fault}</p>}
      {(links.data ?? []).length > 0 && (
        <ul className="points" aria-label="Links">
          {links.data?.map((link) => (
            <li key={link.id}>
              Made {day(link.madeAt)},{' '}
              {link.withdrawnAt ? (
                <span className="soft">withdrawn {day(link.withdrawnAt)}</span>
              ) : (
                <>
                  good until {day(link.expiresAt)}{' '}
                  <Button
                    size="small"
                    onClick={() => void withdrawLink(timerId, link.id).then(again)}
                  >
                    Withdraw
                  </Button>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      <OfficeFields />
      <HomeownerSheet page={page.data} />
    </div>
  );
}
