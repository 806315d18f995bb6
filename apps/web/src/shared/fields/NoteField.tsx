import { useEffect, useRef, useState } from 'react';
import { Input } from 'antd';

interface Props {
  /** What is noted; empty: nothing. */
  readonly value: string;
  /** Called with changed text, trimmed, when the field is left. */
  readonly commit: (text: string) => void;
  /** Read aloud where no label stands beside it. */
  readonly label?: string;
  readonly placeholder?: string;
  readonly most: number;
  /** Lines; one where absent. */
  readonly rows?: number;
}

/**
 * A note that is kept when the field is left or its page closes. Until somebody types, it shows what is noted, even where that
 * changes by undo or on another device; Escape takes back what was typed.
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
