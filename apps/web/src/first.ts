/** What a browser runs first: where it is known how the page looked, that is shown; then comes the application. */
import { applicationOf } from './kept/application.ts';
import { lookOf, showLook } from './kept/showLook.ts';

/** Nobody waits longer for a picture, milliseconds. */
const PATIENCE = 1000;
/** By then the page stands, or says why not. */
const MOST_SHOWN = 15_000;
/** Once the page is there, nobody is kept from it longer until its verdict is. */
const FOR_VERDICT = 2000;
const PAUSE = 50;

const wait = (milliseconds: number) =>
  new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/** What the page shows is its own by now, whatever it is. */
const isThere = (page: HTMLElement): boolean =>
  page.textContent !== '' && !page.querySelector('.page.soft[role=status]');

const hasVerdict = (page: HTMLElement): boolean =>
  !page.querySelector('.verdict:not([data-of=known])');

async function takeAway(away: () => void, page: HTMLElement): Promise<void> {
  let over = Date.now() + MOST_SHOWN;
  while (Date.now() < over && !(isThere(page) && hasVerdict(page))) {
    if (isThere(page)) over = Math.min(over, Date.now() + FOR_VERDICT);
    await wait(PAUSE);
  }
  away();
}

async function lastLook(timerId: string, page: HTMLElement): Promise<void> {
  const look = await lookOf(timerId);
  if (!look || isThere(page)) return;
  const away = showLook(look, page);
  void takeAway(away, page);
  // It is on the screen before the processor is needed for all else.
  await Promise.race([
    new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve))),
    wait(PATIENCE),
  ]);
}

const page = document.getElementById('root');
const [, timerId] = /^\/timers\/([0-9a-f-]{36})$/u.exec(location.pathname) ?? [];
if (page && timerId !== undefined && location.search === '')
  await Promise.race([lastLook(timerId, page).catch(() => undefined), wait(PATIENCE)]);
// In the kept page they wait for this; all at once, not each when another one names it.
for (const link of document.querySelectorAll<HTMLLinkElement>('link[rel=soon]'))
  link.rel = 'modulepreload';
await import(/* @vite-ignore */ applicationOf(document));
