import { useDeferredValue, type ReactNode } from 'react';

/** Content further down, drawn once the part above is visible, so that a step appears at once. */
export function Later({ children }: { readonly children: () => ReactNode }) {
  return useDeferredValue(true, false) ? children() : null;
}
