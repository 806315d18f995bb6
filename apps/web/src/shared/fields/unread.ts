/** Attribute of a typed field whose text was not taken. */
export const UNREAD = 'data-unread';

/**
 * Moves to the first field of a form whose text was not taken; its fault is shown there.
 *
 * @returns whether there is one. Such a form must not be saved, since the typed text would be dropped without a word.
 */
export function stopsAtUnread(form: HTMLElement): boolean {
  const field = form.querySelector<HTMLElement>(`[${UNREAD}]`);
  field?.focus();
  return field !== null;
}
