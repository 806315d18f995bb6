import { useEffect, useRef } from 'react';

/** In a text field, a letter is not a shortcut. */
const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target instanceof HTMLInputElement ||
    target instanceof HTMLTextAreaElement ||
    target.getAttribute('role') === 'combobox');

/** Shortcuts of the whole page, such as `?`. `mod+k`, with Ctrl or ⌘, also works while typing. */
export function useKeys(keys: Readonly<Record<string, () => void>>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const isCommand = event.ctrlKey || event.metaKey;
      if (event.altKey || event.defaultPrevented) return;
      if (!isCommand && isTyping(event.target)) return;
      const act = latest.current[isCommand ? `mod+${event.key.toLowerCase()}` : event.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    addEventListener('keydown', onKeyDown);
    return () => removeEventListener('keydown', onKeyDown);
  }, []);
}
