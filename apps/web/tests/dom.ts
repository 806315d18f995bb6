/** What jsdom lacks and the libraries and our components need. */
import { TextDecoder, TextEncoder } from 'node:util';

class NoObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}

/** Messages arrive even if a test stops the clock. */
const soon = globalThis.setTimeout;

/** Messages between two ends of one page, as an opening list uses them. */
class TwoPorts {
  readonly port1: { onmessage: (() => void) | null } = { onmessage: null };
  readonly port2 = { postMessage: () => soon(() => this.port1.onmessage?.()) };
}

// Styles of ::before and ::after are not simulated; plain ones stand in.
const styleOf = window.getComputedStyle.bind(window);
window.getComputedStyle = (element) => styleOf(element);

// Without layout nothing has a size; what depends on it gets a screenful.
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

// Nothing is drawn, so styles are skipped; matching them for each element sought would take most of the time.
Object.defineProperty(HTMLStyleElement.prototype, 'innerHTML', { set: () => undefined });
