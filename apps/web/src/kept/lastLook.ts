/**
 * How the page of a timer looked when it last stood whole, kept beside the answers: shown as soon as it is opened again, until the code of the page
 * stands. It is a picture of what was, says since when, and takes no press.
 */
import { PREFIX } from '../editor/pendingKeys.ts';
import { OF_DEVICE, SESSION_PATH } from './keeping.ts';
import { keepAnswer, keptAnswer } from './kept.ts';

export interface LastLook {
  readonly html: string;
  /** The rules of all its sheets that may fit it. */
  readonly styles: string;
  /** The style of the page itself: its colours and the size of its letters. */
  readonly ofPage: string;
  /** Of the window, pixels. */
  readonly width: number;
  /** All on which it depends; with another one it is not shown. */
  readonly basis: string;
  /** The first moment of the next date at the house, milliseconds: from then on the verdict may be another. */
  readonly until: number;
  /** Says of when it is, in the language of the page. */
  readonly words: string;
  /** In place of the verdict, once that may be another. */
  readonly wordsOfVerdict: string;
}

const lookPath = (timerId: string) => `look:${timerId}`;

/** What was entered here and is not known to be saved, of one timer, in any tab. */
function waitingIds(owner: string, timerId: string): readonly string[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(`${PREFIX}${owner}:${timerId}:`))
    .flatMap((key) => {
      // The cast trusts what this application wrote.
      const queues = JSON.parse(localStorage.getItem(key) ?? '[]') as {
        writes: { id: string }[];
      }[];
      return queues.flatMap(({ writes }) => writes.map(({ id }) => id));
    });
}

/** @param code by which one version of the application is told from another */
const basisOf = (owner: string, timerId: string, version: number, code: string): string =>
  JSON.stringify([
    ...[code, version, waitingIds(owner, timerId)],
    localStorage.getItem('preferences'),
  ]);

const codeOf = (page: Document): string =>
  page.querySelector<HTMLScriptElement>('script[type=module]')?.src ?? '';

/** Every class that an element needs for a rule; what stands in parentheses may be otherwise. */
function mayFit(selector: string, classes: ReadonlySet<string>): boolean {
  let outer = selector;
  for (let last = ''; last !== outer;)
    [last, outer] = [outer, outer.replaceAll(/\([^()]*\)/gu, '')];
  return outer
    .split(',')
    .some((one) => [...one.matchAll(/\.([\w-]+)/gu)].every(([, name = '']) => classes.has(name)));
}

/** Of some rules those that may fit elements with these classes, as text. What moves is left out, and fonts are the page's. */
function fitting(rules: CSSRuleList, classes: ReadonlySet<string>): string {
  return [...rules]
    .map((rule) => {
      if (rule instanceof CSSStyleRule)
        return mayFit(rule.selectorText, classes) ? rule.cssText : '';
      if (!(rule instanceof CSSGroupingRule)) return '';
      const inner = fitting(rule.cssRules, classes);
      return inner && `${rule.cssText.slice(0, rule.cssText.indexOf('{'))}{${inner}}`;
    })
    .join('');
}

/** Keeps how the page looks now. It must be whole. */
export async function keepLook(
  owner: string,
  timerId: string,
  version: number,
  said: Pick<LastLook, 'until' | 'words' | 'wordsOfVerdict'>,
): Promise<void> {
  const page = document.getElementById('root');
  if (!page) return;
  const classes = new Set(
    [...page.querySelectorAll('[class]')].flatMap((one) => [...one.classList]),
  );
  const look: LastLook = {
    // A style in the text of a page is blocked there; it is put on by hand.
    html: page.innerHTML.replaceAll(' style="', ' data-style="'),
    styles: [...document.styleSheets].map((sheet) => fitting(sheet.cssRules, classes)).join(''),
    ofPage: document.documentElement.style.cssText,
    width: innerWidth,
    basis: basisOf(owner, timerId, version, codeOf(document)),
    ...said,
  };
  await keepAnswer(owner, lookPath(timerId), look);
}

/** How it last looked; null: that is not kept, or something on which it depends is another by now. */
export async function lookOf(timerId: string): Promise<LastLook | null> {
  const session = await keptAnswer(OF_DEVICE, SESSION_PATH);
  // The casts trust what our own server answered, and what was kept here.
  const { person } = (session?.body ?? {}) as { person?: { id: string; companyId: string } | null };
  if (!person) return null;
  const owner = `${person.companyId}.${person.id}`;
  const [kept, answer] = await Promise.all([
    keptAnswer(owner, lookPath(timerId)),
    keptAnswer(owner, `/api/timers/${timerId}`),
  ]);
  const look = kept?.body as LastLook | undefined;
  const version = (answer?.body as { version?: number } | undefined)?.version;
  if (!look || version === undefined || look.width !== innerWidth) return null;
  return look.basis === basisOf(owner, timerId, version, codeOf(document)) ? look : null;
}

/** The picture lies over the page; what is out of sight costs nothing. */
const OF_PICTURE = `
  :host { position: absolute; inset: 0 0 auto; z-index: 10; min-height: 100dvh; background: var(--paper); }
  .board-body > * { content-visibility: auto; contain-intrinsic-size: auto 34px; }
  .as-it-stood { position: fixed; inset: auto 0 0; padding: 12px 16px; background: var(--ink); color: var(--paper); font-weight: 600; }`;

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
