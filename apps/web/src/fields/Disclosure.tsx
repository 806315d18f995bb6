import { useState, type ReactNode } from 'react';

interface Props {
  readonly summary: ReactNode;
  readonly className: string;
  readonly openAtFirst?: boolean;
  readonly children: () => ReactNode;
}

/** Content that is made only once it is opened: what nobody sees costs nothing while a key is handled. */
export function Disclosure({ summary, className, openAtFirst = false, children }: Props) {
  const [open, setOpen] = useState(openAtFirst);
  return (
    <details
      className={className}
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary>{summary}</summary>
      {open && children()}
    </details>
  );
}
