/**
 * The editor's state as the page shows it. What is being typed or dragged waits a moment for the worker's answer, so
 * that both are drawn in one go; everything else shows at once. No interface code.
 */
import type { Snapshot } from './editing.ts';
import type { TimerEditor } from './editor.ts';

/** The page does not wait for a worker longer than this, milliseconds. */
const PATIENCE_MILLISECONDS = 60;

/** Whether two states differ only in what is being typed or dragged. */
function onlyDraftDiffers({ plan: _mine, ...before }: Snapshot, after: Snapshot): boolean {
  // The cast holds because the keys are the snapshot's own.
  return (Object.keys(before) as (keyof typeof before)[]).every(
    (key) => before[key] === after[key],
  );
}

export class ShownSnapshot {
  private current: Snapshot;
  private waiting: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();
  private readonly editor: Pick<TimerEditor, 'subscribe' | 'snapshot'>;

  constructor(editor: Pick<TimerEditor, 'subscribe' | 'snapshot'>) {
    this.editor = editor;
    this.current = editor.snapshot();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    const end = this.listeners.size === 1 ? this.editor.subscribe(this.heard) : null;
    return () => {
      this.listeners.delete(listener);
      end?.();
    };
  };

  readonly snapshot = (): Snapshot => this.current;

  /** Shows what the editor has now. */
  readonly catchUp = (): void => {
    if (this.waiting !== null) clearTimeout(this.waiting);
    this.waiting = null;
    if (this.current === this.editor.snapshot()) return;
    this.current = this.editor.snapshot();
    for (const listener of this.listeners) listener();
  };

  private readonly heard = (): void => {
    if (!onlyDraftDiffers(this.current, this.editor.snapshot())) this.catchUp();
    else this.waiting ??= setTimeout(this.catchUp, PATIENCE_MILLISECONDS);
  };
}
