/** Where writes wait on the device: behind it the owner, the timer and the tab, each after a colon. */
export const PREFIX = 'water-clock:pending:';
