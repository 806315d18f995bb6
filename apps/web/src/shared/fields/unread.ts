import { useState, type FormEvent } from 'react';

/** Attribute of a typed field whose text was not taken. */
export const UNREAD = 'data-unread';

const firstUnread = (form: HTMLElement) => form.querySelector<HTMLElement>(`[${UNREAD}]`);

/**
 * Moves to the first field of a form whose text was not taken; its fault is shown there.
 *
 * @returns whether there is one. Such a form must not be saved, since the typed text would be dropped without a word.
 */
export function stopsAtUnread(form: HTMLElement): boolean {
  const field = firstUnread(form);
  field?.focus();
  return field !== null;
}

/**
 * Whether a form holds such a field, and the form's handlers that keep this up to date. Said next to the button: the fault that appears at
 * the field moves the button away from the press that caused it.
 */
export function useUnread() {
  const [hasUnread, setUnread] = useState(false);
  const look = ({ currentTarget }: FormEvent<HTMLFormElement>) => {
    const form = currentTarget;
    // Once the field has drawn its fault.
    requestAnimationFrame(() => setUnread(firstUnread(form) !== null));
  };
  return { hasUnread, look };
}
