/** What was looked at on the panel, as a change. No interface code. */
import {
  phaseFields,
  type PanelLine,
  type PlanChange,
  type RecordChange,
  type Survey,
} from '@water-clock/core';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';

/** Result of looking at a line; without a value it is as planned. */
export interface Look {
  /** A different setting. */
  readonly change?: PlanChange | null;
  /** What the display shows, if settings are not shown as such. */
  readonly shown?: string;
  /** The interval's phase cannot be read. */
  readonly phaseIsUnknown?: boolean;
}

type Single = Exclude<RecordChange, { type: 'together' }>;

/** The visit with some lines looked at. */
function lookedAt({ visit }: Survey, ids: readonly string[], shown: string | undefined): Single {
  const { panel = {} } = visit ?? {};
  const others = (panel.shown ?? []).filter(({ line }) => !ids.includes(line));
  const odd =
    shown === undefined ? others : [...others, ...ids.map((line) => ({ line, text: shown }))];
  const { shown: _before, ...rest } = panel;
  return {
    type: 'note-visit',
    fields: {
      panel: {
        ...rest,
        looked: [...new Set([...(panel.looked ?? []), ...ids])],
        ...(odd.length > 0 ? { shown: odd } : {}),
      },
    },
  };
}

/** Notes results as one step; returns core's refusal as a message, or null. */
export function noteLooked(editor: TimerEditor, { id, address }: PanelLine, look: Look) {
  const { settled, survey } = editor.snapshot();
  const phase =
    address.of === 'phase'
      ? phaseFields(settled, survey, address.program, look.phaseIsUnknown === true)
      : null;
  const changes: Single[] = [
    ...(look.change ? [look.change] : []),
    ...(phase ? [{ type: 'note', fields: phase } as const] : []),
    lookedAt(survey, [id], look.shown),
  ];
  return commitWords(editor, { type: 'together', changes });
}

/** Notes that several lines are as planned. */
export const noteAsPlanned = (editor: TimerEditor, lines: readonly PanelLine[]) =>
  commitWords(
    editor,
    lookedAt(
      editor.snapshot().survey,
      lines.map(({ id }) => id),
      undefined,
    ),
  );
