import type { ReactNode } from 'react';

interface Props {
  /** What is in it, for those who do not see it. */
  readonly label: string;
  readonly className?: string;
  readonly children: ReactNode;
}

/** What may be wider than the page: it scrolls in a box of its own, by keys too. */
export function Scroll({ label, className = '', children }: Props) {
  return (
    <div className={`scroll ${className}`} role="region" aria-label={label} tabIndex={0}>
      {children}
    </div>
  );
}
