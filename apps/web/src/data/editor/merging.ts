/** A part of core that is loaded only where two people changed one timer. */
export { rebase } from '@water-clock/core';
