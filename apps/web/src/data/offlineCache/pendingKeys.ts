/** Storage key prefix of waiting writes, followed by owner, timer and tab, each after a colon. */
export const PREFIX = 'water-clock:pending:';
