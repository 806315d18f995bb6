import { Input, type InputProps } from 'antd';
import { UNREAD } from './unread.ts';
import { useTyped, type Asked, type Typed } from './useTyped.ts';

interface Props<T> extends Asked<T> {
  readonly label?: string;
  readonly className?: string;
  readonly placeholder?: string | undefined;
  readonly inputMode?: InputProps['inputMode'];
  /** Name among the fields of a card, to find the next one. */
  readonly field?: string | undefined;
  /** Shown in place of the saved value while nothing is typed, such as a start being dragged. */
  readonly instead?: string | undefined;
  /** Called after Enter has made the value. */
  readonly entered?: ((input: HTMLInputElement) => void) | undefined;
}

const STEPS: Readonly<Record<string, 1 | -1>> = { ArrowUp: 1, ArrowDown: -1 };

/** A typed field: Enter or leaving it makes the value, arrow keys step it, Escape reverts it. */
export function TypedInput<T>(props: Props<T>) {
  const { label, className, placeholder, inputMode = 'text', field, instead, entered } = props;
  const typed: Typed<T> = useTyped(props);
  return (
    <Input
      className={className ?? ''}
      aria-label={label}
      aria-invalid={typed.isFaulty}
      {...(typed.isFaulty ? { [UNREAD]: '' } : {})}
      data-field={field}
      placeholder={placeholder}
      value={typed.typed === null && instead !== undefined ? instead : typed.text}
      inputMode={inputMode}
      autoComplete="off"
      spellCheck={false}
      status={typed.isFaulty ? 'error' : ''}
      onFocus={(event) => event.target.select()}
      onChange={(event) => typed.change(event.target.value)}
      onBlur={typed.finish}
      onKeyDown={(event) => {
        const step = STEPS[event.key];
        if (step !== undefined && typed.stepBy(step)) event.preventDefault();
        else if (event.key === 'Enter') {
          // Otherwise the end of this key press would activate whatever gets the focus next.
          if (entered) event.preventDefault();
          if (typed.finish()) entered?.(event.currentTarget);
        } else typed.takesBack(event);
      }}
    />
  );
}
