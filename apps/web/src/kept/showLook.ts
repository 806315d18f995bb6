/** Reads and shows how a timer last looked. It runs before all else, so it has a small reader of its own. */
import { openDB, type IDBPDatabase } from 'idb';
import { KEPT_DATABASE, OF_DEVICE, SESSION_PATH } from './keeping.ts';
import { basisOf, lookPath, type LastLook } from './look.ts';
import { unseal, type Sealed } from './sealing.ts';

type Database = IDBPDatabase<{
  answers: { key: [string, string]; value: Sealed & { mark?: string | number } };
  keys: { key: string; value: { key: CryptoKey } };
}>;

/** How it last looked; null: that is not kept, or something on which it depends is another by now. */
export async function lookOf(timerId: string): Promise<LastLook | null> {
  const database: Database = await openDB(KEPT_DATABASE, undefined, {
    // Nothing was ever kept, and nothing is made here.
    upgrade: (_database, _before, _now, change) => {
      change.done.catch(() => undefined);
      change.abort();
    },
  });
  try {
    const owner = (await database.get('answers', [OF_DEVICE, SESSION_PATH]))?.mark;
    if (typeof owner !== 'string') return null;
    const [sealed, answer, key] = await Promise.all([
      database.get('answers', [owner, lookPath(timerId)]),
      database.get('answers', [owner, `/api/timers/${timerId}`]),
      database.get('keys', owner),
    ]);
    if (!sealed || typeof answer?.mark !== 'number') return null;
    // The cast trusts what was kept here.
    const look = (await unseal(sealed, key?.key ?? null)) as LastLook;
    const isSame = look.basis === basisOf(owner, timerId, answer.mark);
    return isSame && look.width === innerWidth ? look : null;
  } finally {
    database.close();
  }
}

/** The picture lies over the page. */
const OF_PICTURE = `
  :host { position: absolute; inset: 0 0 auto; z-index: 10; min-height: 100%; background: var(--paper); }
  .as-it-stood { position: fixed; inset: auto 0 0; z-index: 1000; padding: 12px 16px; background: var(--ink); color: var(--paper); font-weight: 600; }`;

/** @returns takes it away again */
export function showLook(look: LastLook, page: HTMLElement): () => void {
  const host = document.createElement('div');
  // A tree of its own: whatever seeks in the page does not find the picture.
  const tree = host.attachShadow({ mode: 'open' });
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(look.styles + OF_PICTURE);
  tree.adoptedStyleSheets = [sheet];
  document.documentElement.style.cssText = look.ofPage;
  const picture = document.createElement('div');
  picture.inert = true;
  picture.innerHTML = look.html;
  for (const styled of picture.querySelectorAll<HTMLElement>('[data-style]'))
    styled.style.cssText = styled.dataset['style'] ?? '';
  if (Date.now() >= look.until) {
    const verdict = picture.querySelector('.verdict');
    if (verdict) verdict.className = 'verdict row in-line verdict-empty';
    verdict?.replaceChildren(look.wordsOfVerdict);
  }
  const words = document.createElement('p');
  words.className = 'as-it-stood';
  words.role = 'status';
  words.textContent = look.words;
  tree.append(picture, words);
  page.before(host);
  page.inert = true;
  return () => {
    host.remove();
    page.inert = false;
  };
}
