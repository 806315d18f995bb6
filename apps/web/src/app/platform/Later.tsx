import { useDeferredValue, type ReactNode } from 'react';

/** What stands further down: it is drawn once the part above it can be seen, so that a step is there at once. */
export function Later({ children }: { readonly children: () => ReactNode }) {
  return useDeferredValue(true, false) ? children() : null;
}
