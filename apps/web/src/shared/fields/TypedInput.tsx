import { Input, type InputProps } from 'antd';
import { useTyped, type Asked, type Typed } from './useTyped.ts';

interface Props<T> extends Asked<T> {
  readonly label?: string;
  readonly className?: string;
  readonly placeholder?: string | undefined;
  readonly inputMode?: InputProps['inputMode'];
  /** Its name among the fields of a card, to find the next one. */
  readonly field?: string | undefined;
  /** Shown instead of what is made, while nothing is typed: a start that is being dragged. */
  readonly instead?: string | undefined;
  /** Called when the enter key has made the value. */
  readonly entered?: ((input: HTMLInputElement) => void) | undefined;
}

const STEPS: Readonly<Record<string, 1 | -1>> = { ArrowUp: 1, ArrowDown: -1 };

/** A field that is typed into: Enter or leaving it makes the value, the arrows step it, Escape takes it back. */
export function TypedInput<T>(props: Props<T>) {
  const { label, className, placeholder, inputMode = 'text', field, instead, entered } = props;
  const typed: Typed<T> = useTyped(props);
  return (
    <Input
      className={className ?? ''}
      aria-label={label}
      aria-invalid={typed.isFaulty}
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
          // Otherwise the end of this keystroke would press whatever has the focus next.
          if (entered) event.preventDefault();
          if (typed.finish()) entered?.(event.currentTarget);
        } else typed.takesBack(event);
      }}
    />
  );
}
