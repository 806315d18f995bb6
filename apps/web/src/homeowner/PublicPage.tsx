import { useEffect, useState } from 'react';
import { Button } from 'antd';
import { LANGUAGES, type HomeownerPage, type Language } from '@water-clock/core';
import { LANGUAGE_NAMES } from '@water-clock/words';
import { PageHeading, usePageTitle } from '../app/platform/PageHeading.tsx';
import { Patterns } from '../shared/charts/patterns.tsx';
import { speak } from '../app/platform/language.ts';
import { Loading } from '../app/platform/states.tsx';
import { HomeownerSheet } from './HomeownerSheet.tsx';
import { say } from '@water-clock/core';

const inLanguage = (language: Language | null, first: '?' | '&') =>
  language ? `${first}language=${language}` : '';
const open = (token: string, path: string) =>
  fetch(path, { headers: { authorization: `Bearer ${token}` } });

type Opened =
  | { readonly state: 'opening' }
  | { readonly state: 'open'; readonly page: HomeownerPage }
  | { readonly state: 'closed'; readonly why: string };

/** The homeowner's page for anyone with the link. The token is after the #, so the browser sends it to no one. */
export default function PublicPage() {
  const [token] = useState(() => location.hash.slice(1));
  /** Language chosen here; null: the link's or the site's. */
  const [language, setLanguage] = useState<Language | null>(null);
  const [opened, setOpened] = useState<Opened>({ state: 'opening' });
  usePageTitle(...(opened.state === 'open' ? [opened.page.words.title] : []));
  useEffect(() => {
    let over = false;
    const tell = (next: Opened) => {
      if (!over) setOpened(next);
    };
    open(token, `/api/page${inLanguage(language, '?')}`)
      .then(async (response) => {
        const body = (await response.json()) as HomeownerPage & { message?: string };
        // The buttons use the page's language.
        if (response.ok) await speak(body.language);
        tell(
          response.ok
            ? { state: 'open', page: body }
            : { state: 'closed', why: body.message ?? say`This link does not work.` },
        );
      })
      .catch(() => tell({ state: 'closed', why: say`The page cannot be reached right now.` }));
    return () => {
      over = true;
    };
  }, [token, language]);
  const save = async (paper: 'a4' | 'letter') => {
    const response = await open(token, `/api/page/pdf?paper=${paper}${inLanguage(language, '&')}`);
    if (!response.ok) return;
    const address = URL.createObjectURL(await response.blob());
    const link = document.createElement('a');
    link.href = address;
    link.download = 'watering.pdf';
    link.click();
    setTimeout(() => URL.revokeObjectURL(address), 10_000);
  };
  if (opened.state === 'opening') return <Loading what={say`your page`} />;
  if (opened.state === 'closed')
    return (
      <main className="page sheet-closed">
        <PageHeading title={say`This page is not available`} />
        <p>{opened.why}</p>
      </main>
    );
  return (
    <main className="page">
      <Patterns />
      <HomeownerSheet page={opened.page} />
      <p className="no-print">
        <Button onClick={() => void save('a4')}>{say`Save as PDF, A4`}</Button>{' '}
        <Button onClick={() => void save('letter')}>{say`Letter`}</Button>{' '}
        {LANGUAGES.filter((one) => one !== opened.page.language).map((one) => (
          <Button key={one} lang={one} onClick={() => setLanguage(one)}>
            {LANGUAGE_NAMES[one]}
          </Button>
        ))}
      </p>
    </main>
  );
}
