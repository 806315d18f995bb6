/** What the simulated page lacks and the libraries and our own components need. */
import { TextDecoder, TextEncoder } from 'node:util';

class NoObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}

// A page without a layout has no sizes; what is drawn by its room gets a screenful.
Object.defineProperties(HTMLElement.prototype, {
  clientWidth: { get: () => 1280 },
  clientHeight: { get: () => 800 },
  scrollIntoView: { value: () => undefined },
});

Object.assign(globalThis, {
  IS_REACT_ACT_ENVIRONMENT: true,
  ResizeObserver: NoObserver,
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
