/** Finding a fix takes the engine, which comes when a fix is asked for. */
export { fixOf } from '@water-clock/core';
