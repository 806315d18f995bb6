/** Finding a fix needs the engine, which is loaded on request. */
export { fixOf } from '@water-clock/core';
