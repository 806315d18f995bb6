import { keepAnswer } from './kept.ts';
import { basisOf, lookPath, waitingIds, type LastLook } from './look.ts';
import { tellDrawn } from './outOfSight.ts';

/** Every class that an element needs for a rule; what stands in parentheses may be otherwise. */
export function mayFit(selector: string, classes: ReadonlySet<string>): boolean {
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
      if (rule instanceof CSSStyleRule) {
        if (!mayFit(rule.selectorText, classes)) return '';
        // The hundreds of custom properties of the component library are passed on from the top, in place of being set on each of its elements.
        const isTheme = /^\.css-var-\w+$/u.test(rule.selectorText);
        return isTheme ? rule.cssText.replace(rule.selectorText, ':host') : rule.cssText;
      }
      if (!(rule instanceof CSSGroupingRule)) return '';
      const inner = fitting(rule.cssRules, classes);
      return inner && `${rule.cssText.slice(0, rule.cssText.indexOf('{'))}{${inner}}`;
    })
    .join('');
}

/** The page as text, without the rows that begin below the window: each costs time that nobody has who waits for the others. */
function seen(page: HTMLElement): string {
  const below = [...page.querySelectorAll('.board-body > *, .phone-row')].filter(
    (row) => row.getBoundingClientRect().top + scrollY > innerHeight,
  );
  const text = below.reduce((html, row) => html.replace(row.outerHTML, ''), page.innerHTML);
  // A style in the text of a page is blocked there; it is put on by hand.
  return text.replaceAll(' style="', ' data-style="');
}

/** Keeps how the page looks now. It must be whole. What another tab entered it does not show: then it is not kept. */
export async function keepLook(
  owner: string,
  timerId: string,
  { version, unsaved }: { readonly version: number; readonly unsaved: number },
  said: Pick<LastLook, 'until' | 'words' | 'wordsOfVerdict'>,
): Promise<void> {
  const page = document.getElementById('root');
  if (!page || waitingIds(owner, timerId).length !== unsaved) return;
  const classes = new Set(
    [...page.querySelectorAll('[class]')].flatMap((one) => [...one.classList]),
  );
  const look: LastLook = {
    html: seen(page),
    styles: [...document.styleSheets].map((sheet) => fitting(sheet.cssRules, classes)).join(''),
    ofPage: document.documentElement.style.cssText,
    width: innerWidth,
    basis: basisOf(owner, timerId, version),
    ...said,
  };
  await keepAnswer(owner, lookPath(timerId), look);
  tellDrawn();
}
