import { useState, type KeyboardEvent } from 'react';

export interface Asked<T> {
  /** As saved. */
  readonly value: T;
  /** The typed value; undefined if it cannot be read. */
  readonly read: (typed: string) => T | undefined;
  /** A value as text. */
  readonly write: (value: T) => string;
  /** Shows a value while it is typed, without making it; undefined ends that. */
  readonly draft?: (value: T | undefined) => void;
  /** Makes a changed value; returns core's refusal as a message, or null. */
  readonly commit: (value: T) => string | null | void;
  /** The fault of the typed text when the field is left; null: none any more. */
  readonly tell: (fault: string | null) => void;
  /** Message for text that cannot be read. */
  readonly fault: (typed: string) => string;
  /** A value one step up or down; undefined if the field has no steps. */
  readonly step?: (value: T, direction: 1 | -1) => T;
}

export interface Typed<T> {
  /** Text in the field. */
  readonly text: string;
  /** Null: nothing is being typed. */
  readonly typed: string | null;
  /** As typed or saved; undefined if the typed text cannot be read. */
  readonly read: T | undefined;
  readonly isFaulty: boolean;
  readonly change: (text: string) => void;
  /** One step up or down; false if there is none. */
  readonly stepBy: (direction: 1 | -1) => boolean;
  /** Makes the typed value; returns false and keeps the text if that is not possible. */
  readonly finish: () => boolean;
  /** Discards what was typed. */
  readonly drop: () => void;
  /** Escape and undo discard what was typed; returns whether the key was one of them. */
  readonly takesBack: (event: KeyboardEvent) => boolean;
}

/** Shared behaviour of typed fields: shown while typing, made when finished, discarded by Escape or undo. */
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
