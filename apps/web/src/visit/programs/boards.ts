/** Board and phone versions of the programs; each screen loads its own. */
export const board = () => import('./Board.tsx').then(({ Board }) => ({ default: Board }));
export const phonePrograms = () =>
  import('./PhonePrograms.tsx').then(({ PhonePrograms }) => ({ default: PhonePrograms }));
