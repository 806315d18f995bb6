/** What can be undone and redone on a timer. */
import type { Step, Way } from '../api/timers.ts';

/** Derives what can be undone and redone from the record of changes. */
export function stacksOf(history: readonly (Step & { readonly way: Way })[]): {
  undo: Step[];
  redo: Step[];
} {
  let undo: Step[] = [];
  let redo: Step[] = [];
  for (const { way, change, inverse } of history) {
    if (way === 'do') {
      undo.push({ change, inverse });
      redo = [];
    } else if (way === 'undo') {
      undo = undo.slice(0, -1);
      redo.push({ change: inverse, inverse: change });
    } else {
      redo = redo.slice(0, -1);
      undo.push({ change, inverse });
    }
  }
  return { undo, redo };
}

export class UndoStack {
  private undoSteps: readonly Step[];
  private redoSteps: readonly Step[];

  constructor(history: readonly (Step & { readonly way: Way })[]) {
    const { undo, redo } = stacksOf(history);
    this.undoSteps = undo;
    this.redoSteps = redo;
  }

  get canUndo(): boolean {
    return this.undoSteps.length > 0;
  }

  get canRedo(): boolean {
    return this.redoSteps.length > 0;
  }

  /** A new step was made. */
  push(step: Step): void {
    this.undoSteps = [...this.undoSteps, step];
    this.redoSteps = [];
  }

  /** The step to undo, which can then be redone. */
  undo(): Step | undefined {
    const step = this.undoSteps.at(-1);
    this.undoSteps = this.undoSteps.slice(0, -1);
    if (step) this.redoSteps = [...this.redoSteps, step];
    return step;
  }

  /** The step to redo, which can then be undone. */
  redo(): Step | undefined {
    const step = this.redoSteps.at(-1);
    this.redoSteps = this.redoSteps.slice(0, -1);
    if (step) this.undoSteps = [...this.undoSteps, step];
    return step;
  }

  /** Earlier steps no longer fit the current record. */
  clear(): void {
    this.undoSteps = [];
    this.redoSteps = [];
  }
}
