/**
 * The editor's state as the page shows it. While something is typed or dragged, it waits briefly for the worker's answer, so that both are
 * drawn in one frame; everything else shows at once. No interface code.
 */
import type { Snapshot } from './editing.ts';
import type { TimerEditor } from './editor.ts';

/** Longest wait for a worker, milliseconds. */
const PATIENCE_MILLISECONDS = 60;

/** Whether two states differ only in what is being typed or dragged. */
function onlyDraftDiffers({ plan: _mine, ...before }: Snapshot, after: Snapshot): boolean {
  // Safe cast: the keys are the snapshot's own.
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

  /** Shows the editor's current state. */
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
