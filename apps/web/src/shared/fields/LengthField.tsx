import { parseRunEntry, runEntryHelp, runEntryText, say, stepped } from '@water-clock/core';
import { TypedInput } from './TypedInput.tsx';

interface Props {
  readonly label: string;
  readonly className?: string;
  readonly placeholder?: string;
  /** Seconds; 0: none. */
  readonly value: number;
  readonly stepSeconds?: number;
  readonly mostSeconds?: number;
  readonly draft?: (seconds: number | null) => void;
  /** Core's refusal as a message, or null if the change was made. */
  readonly commit: (seconds: number) => string | null | void;
  readonly tell: (fault: string | null) => void;
}

/** A duration, typed freely: `12`, `7.5`, `12:30`, `1h20`, `90s`. */
export function LengthField(props: Props) {
  const { value, stepSeconds = 60, mostSeconds = 86_400, draft, commit, tell } = props;
  return (
    <TypedInput<number>
      label={props.label}
      className={props.className ?? ''}
      placeholder={props.placeholder}
      value={value}
      read={(typed) => parseRunEntry(typed) ?? undefined}
      write={runEntryText}
      fault={(typed) => say`“${typed}” is not a run time. ${runEntryHelp()}`}
      tell={tell}
      {...(draft ? { draft: (seconds: number | undefined) => draft(seconds ?? null) } : {})}
      commit={commit}
      step={(seconds, direction) => stepped(seconds, direction, stepSeconds, 0, mostSeconds)}
    />
  );
}
