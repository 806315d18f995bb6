import { useEffect, useRef, useState } from 'react';
import { Input } from 'antd';

interface Props {
  /** The note; empty: none. */
  readonly value: string;
  /** Called with changed, trimmed text when the field is left. */
  readonly commit: (text: string) => void;
  /** Accessible name if there is no label. */
  readonly label?: string;
  readonly placeholder?: string;
  readonly most: number;
  /** Number of lines; 1 by default. */
  readonly rows?: number;
}

/**
 * A note, saved when the field is left or the page closes. Until someone types, it follows changes by undo or other devices; Escape reverts
 * what was typed.
 */
export function NoteField({ value, commit, label, placeholder, most, rows }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const finish = () => {
    if (typed === null) return;
    setTyped(null);
    const text = typed.trim();
    if (text !== value) commit(text);
  };
  const latest = useRef(finish);
  useEffect(() => {
    latest.current = finish;
  });
  useEffect(() => {
    const keep = () => latest.current();
    addEventListener('pagehide', keep);
    return () => {
      removeEventListener('pagehide', keep);
      keep();
    };
  }, []);
  const common = {
    value: typed ?? value,
    maxLength: most,
    'aria-label': label,
    placeholder,
    onBlur: finish,
    onChange: (event: { readonly target: { readonly value: string } }) =>
      setTyped(event.target.value),
    onKeyDown: (event: { readonly key: string }) => {
      if (event.key === 'Escape') setTyped(null);
    },
  };
  return rows === undefined ? <Input {...common} /> : <Input.TextArea rows={rows} {...common} />;
}
