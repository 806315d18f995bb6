import { useState } from 'react';
import type { ComponentProps } from 'react';
import { TimeField } from './TimeField.tsx';

type Props = Omit<ComponentProps<typeof TimeField>, 'tell' | 'label'> & {
  readonly label: string;
  /** Whether the typed text is not a time. */
  readonly faulty?: (isFaulty: boolean) => void;
};

/** A time of day with its label, and its fault below it. */
export function LabelledTime({ label, faulty, ...field }: Props) {
  const [fault, setFault] = useState<string | null>(null);
  const tell = (words: string | null) => {
    setFault(words);
    faulty?.(words !== null);
  };
  return (
    <div className="labelled">
      <span aria-hidden>{label}</span>
      <TimeField label={label} tell={tell} {...field} />
      {fault !== null && (
        <span className="fault" role="alert">
          {fault}
        </span>
      )}
    </div>
  );
}
