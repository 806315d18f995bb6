import type { TimerRecord } from '@water-clock/core';
import { TimerEditor } from '../src/data/editor/editor.ts';

/** An editor whose server never answers: what shows is what the page made. */
export const editorAlone = (record: Pick<TimerRecord, 'plan' | 'survey'>): TimerEditor =>
  new TimerEditor({ ...record, version: 1 }, [], {
    transport: {
      send: () => new Promise(() => undefined),
      load: () => new Promise(() => undefined),
    },
    newId: () => 'id',
    merging: () => new Promise(() => undefined),
    keep: () => undefined,
    later: () => undefined,
  });
