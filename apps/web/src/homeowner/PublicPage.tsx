import { useEffect, useState } from 'react';
import { Button } from 'antd';
import type { HomeownerPage } from '@water-clock/core';
import { Patterns } from '../charts/patterns.tsx';
import { Loading } from '../platform/states.tsx';
import { HomeownerSheet } from './HomeownerSheet.tsx';

const open = (token: string, path = '/api/page') =>
  fetch(path, { headers: { authorization: `Bearer ${token}` } });

type Opened =
  | { readonly state: 'opening' }
  | { readonly state: 'open'; readonly page: HomeownerPage }
  | { readonly state: 'closed'; readonly why: string };

/** The page for anybody who has the link, without an account. The token is behind the #, so the browser sends it to nobody. */
export default function PublicPage() {
  const [token] = useState(() => location.hash.slice(1));
  const [opened, setOpened] = useState<Opened>({ state: 'opening' });
  useEffect(() => {
    let over = false;
    const tell = (next: Opened) => {
      if (!over) setOpened(next);
    };
    open(token)
      .then(async (response) => {
        const body = (await response.json()) as HomeownerPage & { message?: string };
        tell(
          response.ok
            ? { state: 'open', page: body }
            : { state: 'closed', why: body.message ?? 'This link is not good.' },
        );
      })
      .catch(() => tell({ state: 'closed', why: 'The page cannot be reached just now.' }));
    return () => {
      over = true;
    };
  }, [token]);
  const save = async (paper: 'a4' | 'letter') => {
    const response = await open(token, `/api/page/pdf?paper=${paper}`);
    if (!response.ok) return;
    const address = URL.createObjectURL(await response.blob());
    const link = document.createElement('a');
    link.href = address;
    link.download = 'watering.pdf';
    link.click();
    setTimeout(() => URL.revokeObjectURL(address), 10_000);
  };
  if (opened.state === 'opening') return <Loading what="your page" />;
  if (opened.state === 'closed')
    return (
      <main className="page sheet-closed">
        <h1>This page is not open</h1>
        <p>{opened.why}</p>
      </main>
    );
  return (
    <main className="page">
      <Patterns />
      <HomeownerSheet page={opened.page} />
      <p className="no-print">
        <Button onClick={() => void save('a4')}>Keep as PDF, A4</Button>{' '}
        <Button onClick={() => void save('letter')}>Letter</Button>
      </p>
    </main>
  );
}
