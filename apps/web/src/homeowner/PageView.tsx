import { useRef, useState } from 'react';
import { Alert, Button } from 'antd';
import { useQueryClient } from '@tanstack/react-query';
import { dateWords, LANGUAGES, parseDate, say, type Language } from '@water-clock/core';
import { LANGUAGE_NAMES } from '@water-clock/words';
import { failureWords, newId, RefusedError } from '../data/api/request.ts';
import { MadeLink } from '../app/platform/MadeLink.tsx';
import { usePreferences } from '../app/platform/preferences.tsx';
import { Failed, Loading } from '../app/platform/states.tsx';
import { newToken } from '../app/platform/token.ts';
import type { StepProps } from '../visit/steps/stepProps.ts';
import {
  cardPdfPath,
  makeLink,
  pagePdfPath,
  useLinks,
  usePage,
  visitKeys,
  withdrawLink,
} from '../data/api/visits.ts';
import { OfficeFields } from './OfficeFields.tsx';
import { HomeownerSheet } from './HomeownerSheet.tsx';
import { Switch } from '../shared/fields/Switch.tsx';
import { SelectField } from '../shared/fields/SelectField.tsx';

const DAYS = [
  [30, say`a month`],
  [180, say`half a year`],
  [365, say`a year`],
] as const;

/** The homeowner's page: preview, PDF and private links. */
export default function PageView(props: StepProps & { readonly version: number }) {
  const { order } = usePreferences();
  const { timerId, version, today } = props;
  // Null: the site's language.
  const [language, setLanguage] = useState<Language | null>(null);
  const page = usePage(timerId, version, language);
  const links = useLinks(timerId);
  const client = useQueryClient();
  const [days, setDays] = useState(365);
  const [made, setMade] = useState<{ id: string; address: string } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const link = useRef<{ readonly id: string; readonly token: string } | null>(null);
  if (page.isPending) return <Loading what={say`the page`} />;
  if (page.isError)
    return <Failed what={say`The page`} error={page.error} retry={() => void page.refetch()} />;
  const again = () => client.invalidateQueries({ queryKey: visitKeys.links(timerId) });
  const make = async () => {
    // If the answer is lost, the same link is created again, not a second one.
    link.current ??= { id: newId(), token: newToken() };
    const { id, token } = link.current;
    try {
      await makeLink(timerId, { id, token, days, language });
      setMade({ id, address: `${location.origin}/page#${token}` });
      setFault(null);
      link.current = null;
      await again();
    } catch (error) {
      if (error instanceof RefusedError) link.current = null;
      setFault(failureWords(error, say`Link not created`));
    }
  };
  const day = (moment: string) => dateWords(parseDate(moment.slice(0, 10)) ?? today, today, order);
  return (
    <div className="survey-view stack page-column">
      {page.data.breaches.length > 0 && (
        <Alert
          type="error"
          showIcon
          title={say`These settings break the watering rules. Change them before you send the page.`}
          description={page.data.breaches.join(' ')}
        />
      )}
      <div className="row near at-foot">
        <Switch
          label={say`Page language`}
          value={page.data.language}
          options={LANGUAGES.map((one) => [one, LANGUAGE_NAMES[one]] as const)}
          pick={setLanguage}
        />
        <Button
          type="primary"
          size="large"
          href={pagePdfPath(timerId, 'a4', language)}
          target="_blank"
        >{say`PDF, A4`}</Button>
        <Button
          size="large"
          href={pagePdfPath(timerId, 'letter', language)}
          target="_blank"
        >{say`PDF, Letter`}</Button>
        <Button
          size="large"
          href={cardPdfPath(timerId, 'a6', language)}
          target="_blank"
        >{say`Timer card, A6`}</Button>
        <Button
          size="large"
          href={cardPdfPath(timerId, '4x6', language)}
          target="_blank"
        >{say`Timer card, 4 × 6 in`}</Button>
      </div>
      <div className="row near">
        <SelectField
          aria-label={say`Valid for`}
          value={days}
          options={DAYS.map(([one, words]) => [one, say`valid for ${words}`] as const)}
          pick={(value) => setDays(Number(value))}
        />
        <Button size="large" onClick={() => void make()}>{say`Create private link`}</Button>
      </div>
      {made && (
        <MadeLink address={made.address}>{say`Copy it now. It is shown only once:`}</MadeLink>
      )}
      {fault && <p className="fault">{fault}</p>}
      {(links.data ?? []).length > 0 && (
        <ul className="points" aria-label={say`Links`}>
          {links.data?.map((link) => (
            <li key={link.id}>
              {link.withdrawnAt ? (
                <span className="soft">{say`Created ${day(link.madeAt)}, revoked ${day(link.withdrawnAt)}`}</span>
              ) : (
                <>
                  {say`Created ${day(link.madeAt)}, valid until ${day(link.expiresAt)}`}{' '}
                  <Button
                    size="small"
                    onClick={() => void withdrawLink(timerId, link.id).then(again)}
                  >{say`Revoke`}</Button>
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
