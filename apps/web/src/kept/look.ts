/**
 * How the page of a timer looked when it last stood whole, kept beside the answers: shown as soon as it is opened again, until the code of the page
 * stands. It is a picture of what was, says since when, and takes no press.
 */
import { PREFIX } from './pendingKeys.ts';
import { applicationOf } from './application.ts';

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

export const lookPath = (timerId: string) => `look:${timerId}`;

/** What was entered here and is not known to be saved, of one timer, in any tab. */
export function waitingIds(owner: string, timerId: string): readonly string[] {
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

/** What its look depends on: the version of the application and of the timer, what waits, and what the person likes. */
export const basisOf = (owner: string, timerId: string, version: number): string =>
  JSON.stringify([
    ...[applicationOf(document), version, waitingIds(owner, timerId)],
    localStorage.getItem('preferences'),
  ]);
