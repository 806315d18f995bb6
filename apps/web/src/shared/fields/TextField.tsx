import { useId, type ReactNode } from 'react';
import { Input, type InputProps } from 'antd';
import { RefusedError } from '../../data/api/request.ts';

/** What the server says is wrong with a field. */
export const faultAt = (error: Error | null, path: string): string | undefined =>
  error instanceof RefusedError
    ? error.faults.find((fault) => fault.path === path)?.message
    : undefined;

interface Props extends Pick<
  InputProps,
  'type' | 'name' | 'autoComplete' | 'inputMode' | 'autoFocus'
> {
  readonly label: string;
  readonly value: string;
  readonly set: (value: string) => void;
  readonly fault?: string | undefined;
  readonly hint?: ReactNode;
  readonly disabled?: boolean;
}

/** A labelled text field with its fault. */
export function TextField({ label, value, set, fault, hint, disabled = false, ...input }: Props) {
  const id = useId();
  const described = hint !== undefined || fault !== undefined;
  return (
    <div className="labelled">
      <label htmlFor={id}>{label}</label>
      <Input
        {...input}
        id={id}
        value={value}
        disabled={disabled}
        aria-invalid={fault !== undefined}
        aria-describedby={described ? `${id}-said` : undefined}
        status={fault !== undefined ? 'error' : ''}
        onChange={(event) => set(event.target.value)}
      />
      {described && (
        <span id={`${id}-said`} className={fault === undefined ? 'soft' : 'fault'}>
          {fault ?? hint}
        </span>
      )}
    </div>
  );
}
