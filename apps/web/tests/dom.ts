/** What the simulated page lacks and the libraries and our own components need. */
import { TextDecoder, TextEncoder } from 'node:util';

class NoObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}

/** A message comes also where a test holds the clock. */
const soon = globalThis.setTimeout;

/** Messages between two ends of one page, as a list that opens uses them. */
class TwoPorts {
  readonly port1: { onmessage: (() => void) | null } = { onmessage: null };
  readonly port2 = { postMessage: () => soon(() => this.port1.onmessage?.()) };
}

// Styles of a ::before or ::after are not simulated; the plain ones stand for them.
const styleOf = window.getComputedStyle.bind(window);
window.getComputedStyle = (element) => styleOf(element);

// A page without a layout has no sizes; what is drawn by its room gets a screenful.
Object.defineProperties(HTMLElement.prototype, {
  clientWidth: { get: () => 1280 },
  clientHeight: { get: () => 800 },
  scrollIntoView: { value: () => undefined },
});

Object.assign(globalThis, {
  IS_REACT_ACT_ENVIRONMENT: true,
  ResizeObserver: NoObserver,
  MessageChannel: TwoPorts,
  TextDecoder,
  TextEncoder,
  crypto: globalThis.crypto,
  matchMedia: (media: string) => ({
    media,
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    addListener: () => undefined,
    removeListener: () => undefined,
  }),
});

// A page that is not drawn needs no styles; to match theirs against each element that is looked for takes longer than all the rest.
Object.defineProperty(HTMLStyleElement.prototype, 'innerHTML', { set: () => undefined });
