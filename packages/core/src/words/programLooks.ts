/** How a program is drawn on screen and paper: a colour, and a pattern that tells it apart without colour. */

export interface ProgramLook {
  /** In the light theme and on paper. */
  readonly colour: string;
  /** Path of a line drawn over the colour in a 12 by 12 tile; null: plain. */
  readonly mark: { readonly path: string; readonly width: number } | null;
}

export const LOOK_TILE = 12;

export const PROGRAM_LOOKS: readonly ProgramLook[] = [
  { colour: '#20569c', mark: null },
  { colour: '#a84a08', mark: { path: 'M-2 10 10 -2M4 16 16 4', width: 2 } },
  // A dot: a line this thick around a circle this small fills it.
  {
    colour: '#3b6b35',
    mark: { path: 'M6 5.1a.9.9 0 1 0 0 1.8a.9.9 0 1 0 0-1.8z', width: 1.8 },
  },
  { colour: '#84307d', mark: { path: 'M6 0v12', width: 2.4 } },
  { colour: '#6b5900', mark: { path: 'M-2 2 10 14M2 -2 14 10', width: 2 } },
  { colour: '#125f66', mark: { path: 'M0 6h12', width: 2.4 } },
];

/** Look of a program by letter; it repeats from the seventh. */
export const lookOf = (letter: string): number =>
  (letter.charCodeAt(0) - 65) % PROGRAM_LOOKS.length;
