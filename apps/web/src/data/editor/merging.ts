/** The merge part of core, loaded only when two people changed one timer. */
export { rebase } from '@water-clock/core';
