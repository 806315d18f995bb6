import { useState, type KeyboardEvent } from 'react';

export interface Asked<T> {
  /** As it is made. */
  readonly value: T;
  /** Of what is typed; undefined where it cannot be meant. */
  readonly read: (typed: string) => T | undefined;
  /** A value as it stands in the field. */
  readonly write: (value: T) => string;
  /** Shows a value while it is typed, without making it; undefined ends that. */
  readonly draft?: (value: T | undefined) => void;
  /** Makes a value that differs; the refusal in words, or null where it is made. */
  readonly commit: (value: T) => string | null | void;
  /** What is wrong with what was typed, when the field is left; null: nothing any more. */
  readonly tell: (fault: string | null) => void;
  /** Words for what cannot be read. */
  readonly fault: (typed: string) => string;
  /** A value one step up or down; undefined where the field has no steps. */
  readonly step?: (value: T, direction: 1 | -1) => T;
}

export interface Typed<T> {
  /** What stands in the field. */
  readonly text: string;
  /** Null: nothing is being typed. */
  readonly typed: string | null;
  /** As typed or made; undefined where what is typed cannot be meant. */
  readonly read: T | undefined;
  readonly isFaulty: boolean;
  readonly change: (text: string) => void;
  /** Goes one step up or down; false: there is none. */
  readonly stepBy: (direction: 1 | -1) => boolean;
  /** Makes what was typed; false where that is not possible. It then stays in the field. */
  readonly finish: () => boolean;
  /** Forgets what was typed. */
  readonly drop: () => void;
  /** Escape and undo take back what was typed; true: this key was one of them. */
  readonly takesBack: (event: KeyboardEvent) => boolean;
}

/** One behaviour for every field that is typed into: shown while it is typed, made when it is finished, taken back by Escape or undo. */
export function useTyped<T>(asked: Asked<T>): Typed<T> {
  const { value, read: meaning, write, draft, commit, tell, fault, step } = asked;
  const [typed, setTyped] = useState<string | null>(null);
  const [isRefused, setRefused] = useState(false);
  const read = typed === null ? value : meaning(typed);

  const change = (text: string) => {
    setTyped(text);
    setRefused(false);
    tell(null);
    draft?.(meaning(text));
  };
  const drop = () => {
    setTyped(null);
    setRefused(false);
    tell(null);
    draft?.(undefined);
  };
  const refuse = (words: string): false => {
    setRefused(true);
    draft?.(undefined);
    tell(words);
    return false;
  };
  return {
    typed,
    read,
    text: typed ?? write(value),
    isFaulty: isRefused || (typed !== null && typed.trim() !== '' && read === undefined),
    change,
    stepBy: (direction) => {
      if (!step || read === undefined) return false;
      change(write(step(read, direction)));
      return true;
    },
    finish: () => {
      if (typed === null) return true;
      if (read === undefined) return refuse(fault(typed));
      if (Object.is(read, value)) {
        drop();
        return true;
      }
      const refusal = commit(read) ?? null;
      if (refusal !== null) return refuse(refusal);
      setTyped(null);
      setRefused(false);
      return true;
    },
    drop,
    takesBack: (event) => {
      const isUndo = event.key === 'z' && (event.ctrlKey || event.metaKey) && typed !== null;
      if (isUndo) {
        event.preventDefault();
        event.stopPropagation();
      }
      if (!isUndo && event.key !== 'Escape') return false;
      drop();
      return true;
    },
  };
}
