import type { ReactNode } from 'react';

interface Props {
  /** What it contains, for screen readers. */
  readonly label: string;
  readonly className?: string;
  readonly children: ReactNode;
}

/** A box for content that may be wider than the page; it scrolls, also by keyboard. */
export function Scroll({ label, className = '', children }: Props) {
  return (
    <div className={`scroll ${className}`} role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  );
}
