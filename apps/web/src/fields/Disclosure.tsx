import { useState, type ReactNode } from 'react';

interface Props {
  readonly summary: ReactNode;
  readonly className: string;
  readonly openAtFirst?: boolean;
  readonly children: () => ReactNode;
}

/** Something that is made only once it is opened: what is not seen costs nothing while a key is being answered. */
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
