/** The code of the programs, as a board and as a phone has them: each screen loads its own. */
export const board = () => import('./Board.tsx').then(({ Board }) => ({ default: Board }));
export const phonePrograms = () =>
  import('./PhonePrograms.tsx').then(({ PhonePrograms }) => ({ default: PhonePrograms }));
