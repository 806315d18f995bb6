import { memo } from 'react';
import { LOOK_TILE, lookOf, PROGRAM_LOOKS, say } from '@water-clock/core';

/** Fills that tell programs apart without colour: six patterns, each with its own colour, then repeated lighter. */

export const colourOf = (letter: string) => `var(--program-${lookOf(letter)})`;
/** Fill of a program's runs. */
/** Of a program, or of a manual run. */
export const fillOf = (letter: string | null) =>
  letter === null ? 'var(--ink)' : `url(#program-${lookOf(letter)})`;
/** Fill of times at which a start may not be dropped. */
export const BLOCKED_FILL = 'url(#blocked-hatch)';
/** Fill of no-water hours. */
export const DRY_FILL = 'url(#dry-hatch)';
/** Fill of an overlap. */
export const OVERLAP_FILL = 'url(#overlap-hatch)';

/** The fill definitions, once on a page for all its drawings. */
export const Patterns = memo(function Patterns() {
  return (
    <svg width="0" height="0" style={{ position: 'absolute' }} aria-hidden>
      <defs>
        {PROGRAM_LOOKS.map(({ mark }, look) => (
          <pattern
            key={look}
            id={`program-${look}`}
            width={LOOK_TILE}
            height={LOOK_TILE}
            patternUnits="userSpaceOnUse"
          >
            <rect width={LOOK_TILE} height={LOOK_TILE} fill={`var(--program-${look})`} />
            {mark && (
              <path d={mark.path} strokeWidth={mark.width} stroke="var(--sheet)" opacity="0.55" />
            )}
          </pattern>
        ))}
        <pattern id="overlap-hatch" width="8" height="8" patternUnits="userSpaceOnUse">
          <rect width="8" height="8" fill="var(--sheet)" opacity="0.55" />
          <path d="M0 8 8 0M-2 2 2 -2M6 10 10 6M0 0 8 8" stroke="var(--ink)" strokeWidth="1.3" />
        </pattern>
        <pattern id="dry-hatch" width="9" height="9" patternUnits="userSpaceOnUse">
          <path d="M-1 -1 10 10M-1 8 1 10M8 -1 10 1" stroke="var(--line-strong)" strokeWidth="1" />
        </pattern>
        <pattern id="blocked-hatch" width="7" height="7" patternUnits="userSpaceOnUse">
          <path d="M-1 1 1 -1M0 7 7 0M6 8 8 6" stroke="var(--alarm)" strokeWidth="1.6" />
        </pattern>
      </defs>
    </svg>
  );
});

/** A program's letter on its fill, at the start of a row. */
export function ProgramBadge({
  letter,
  label = letter,
  size = 34,
}: {
  readonly letter: string;
  /** Name on the panel, if it is not the letter. */
  readonly label?: string;
  readonly size?: number;
}) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 34 34"
      role="img"
      aria-label={say`Program ${label}`}
    >
      <rect width="34" height="34" rx="4" fill={fillOf(letter)} />
      <rect x="7" y="7" width="20" height="20" rx="3" fill="var(--sheet)" />
      <text x="17" y="23.5" textAnchor="middle" fontSize="18" fontWeight="800" fill="var(--ink)">
        {label}
      </text>
    </svg>
  );
}
