import {
  formatTime,
  parseTime,
  parseTimeEntry,
  startWords,
  steppedStart,
  timeEntryHelp,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { TypedInput } from './TypedInput.tsx';

interface Props {
  /** Accessible name if there is no label. */
  readonly label?: string;
  readonly className?: string;
  /** `17:30`; null: not set. */
  readonly value: string | null;
  /** Value while it is dragged elsewhere. */
  readonly shownValue?: string | undefined;
  readonly placeholder?: string | undefined;
  /** Name, to find it. */
  readonly field?: string;
  /** Step of the arrow keys; 5 by default. */
  readonly stepMinutes?: number;
  readonly draft?: (time: string | null) => void;
  /** Core's refusal as a message, or null if the change was made. */
  readonly commit: (time: string) => string | null | void;
  /** Called when the field was emptied; without it, an emptied field reverts. */
  readonly clear?: () => void;
  readonly tell: (fault: string | null) => void;
}

/** A time of day, typed freely (`5`, `530`, `5:30p`) or stepped with the arrow keys. */
export function TimeField(props: Props) {
  const { value, shownValue, stepMinutes = 5, draft, commit, clear } = props;
  const { clock } = usePreferences();
  const words = (time: string | null) => (time === null ? '' : startWords(time, clock));
  return (
    <TypedInput<string | null>
      {...(props.label === undefined ? {} : { label: props.label })}
      className={props.className ?? ''}
      placeholder={props.placeholder}
      field={props.field}
      value={value}
      instead={shownValue === undefined ? undefined : words(shownValue)}
      read={(typed) =>
        typed.trim() === '' ? (clear ? null : value) : (parseTimeEntry(typed) ?? undefined)
      }
      write={words}
      fault={(typed) => say`“${typed}” is not a time. ${timeEntryHelp()}`}
      tell={props.tell}
      {...(draft ? { draft: (time: string | null | undefined) => draft(time ?? null) } : {})}
      commit={(time) => (time === null ? clear?.() : commit(time))}
      step={(time, direction) =>
        formatTime(steppedStart(parseTime(time ?? '') ?? 0, direction, stepMinutes))
      }
    />
  );
}
