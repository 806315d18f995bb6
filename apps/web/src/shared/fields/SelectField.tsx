import { useId, type ReactNode } from 'react';
import { Select } from 'antd';

/** On a touch screen a search field would open the keyboard, so only long lists have one there. */
const FEW = 8;
const hasKeyboard = () => !globalThis.matchMedia?.('(pointer: coarse)').matches;

interface Props<T extends string | number> {
  /** Undefined if `aria-label` names it. */
  readonly label?: ReactNode;
  readonly 'aria-label'?: string;
  readonly className?: string;
  readonly disabled?: boolean;
  readonly placeholder?: string;
  /** A value that is not an option, such as an empty text, shows the placeholder. */
  readonly value: T;
  readonly options: readonly (readonly [value: T, words: string])[];
  /** More about an option, in the list; also searched. */
  readonly describe?: (value: T) => string;
  readonly pick: (value: T) => void;
}

/** A labelled select. */
export function SelectField<T extends string | number>(props: Props<T>) {
  const { label, className = '', disabled = false, placeholder, value, options, pick } = props;
  const { describe } = props;
  const id = useId();
  const isKnown = options.some(([one]) => one === value);
  const list = (
    <Select<T>
      id={id}
      className={label === undefined ? className : 'select'}
      // A long word must not push it off a phone's screen.
      style={{ maxWidth: '100%' }}
      aria-label={props['aria-label']}
      disabled={disabled}
      placeholder={placeholder}
      value={isKnown ? value : null}
      showSearch={(hasKeyboard() || options.length > FEW) && { optionFilterProp: 'search' }}
      // Descriptions wrap; names alone take what they need.
      popupMatchSelectWidth={describe !== undefined}
      virtual={false}
      options={options.map(([one, words]) => ({
        value: one,
        label: words,
        search: `${words} ${describe?.(one) ?? ''}`,
      }))}
      {...(describe && {
        optionRender: ({ label: words, data }) => (
          <>
            {words}
            <div className="soft small" style={{ whiteSpace: 'normal' }}>
              {describe(data.value as T)}
            </div>
          </>
        ),
      })}
      onChange={pick}
    />
  );
  if (label === undefined) return list;
  return (
    <div className={`labelled ${className}`}>
      <label htmlFor={id}>{label}</label>
      {list}
    </div>
  );
}
