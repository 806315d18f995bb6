/** Notes: typed text is saved once, undo shows, and a note stays with its fault. */
import './patience.ts';
import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { StrictMode, useState } from 'react';
import type { NotedDefect } from '@water-clock/core';
import { NoteField } from '../src/shared/fields/NoteField.tsx';
import { DefectPicker } from '../src/visit/stations/DefectPicker.tsx';

afterEach(cleanup);

const field = (name: string | RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name });
const type = (name: string | RegExp, text: string) =>
  fireEvent.change(field(name), { target: { value: text } });

describe('a note', () => {
  const shown = (value: string, commit = jest.fn<(text: string) => void>()) => {
    const note = (now: string) => (
      <StrictMode>
        <NoteField label="Note" most={20} value={now} commit={commit} />
      </StrictMode>
    );
    const page = render(note(value));
    return { commit, undo: (to: string) => page.rerender(note(to)), leave: () => page.unmount() };
  };

  test('is kept once when the field is left, trimmed, and only where it changed', () => {
    const { commit } = shown('old');
    type('Note', '  new ');
    expect(commit).not.toHaveBeenCalled();
    fireEvent.blur(field('Note'));
    expect(commit.mock.calls).toEqual([['new']]);
    type('Note', ' old ');
    fireEvent.blur(field('Note'));
    expect(commit).toHaveBeenCalledTimes(1);
  });

  test('shows what an undo brought back, and leaving the field does not write the undone text again', () => {
    const { commit, undo } = shown('typed before');
    undo('');
    expect(field('Note').value).toBe('');
    fireEvent.focus(field('Note'));
    fireEvent.blur(field('Note'));
    expect(commit).not.toHaveBeenCalled();
  });

  test('Escape takes back what was typed; what was typed is kept when its page goes', () => {
    const { commit, leave } = shown('old');
    type('Note', 'slip');
    fireEvent.keyDown(field('Note'), { key: 'Escape' });
    expect(field('Note').value).toBe('old');
    type('Note', 'last words');
    leave();
    expect(commit.mock.calls).toEqual([['last words']]);
  });
});

test('after a fault is deleted each note stays with its own fault', () => {
  const saved = jest.fn<(faults: readonly NotedDefect[]) => void>();
  function Station() {
    const [faults, setFaults] = useState<readonly NotedDefect[]>([
      { fault: 'leak', severity: 'soon', note: 'by the tap' },
      { fault: 'overspray', severity: 'can-wait', note: 'onto the path' },
      { fault: 'leak', severity: 'soon', note: 'by the gate' },
    ]);
    return (
      <DefectPicker
        faults={faults}
        set={(next) => {
          saved(next);
          setFaults(next);
        }}
      />
    );
  }
  render(<Station />);
  const [first] = screen.getAllByRole('button', { name: /leak/ });
  if (!first) throw new Error('no button');
  fireEvent.click(first);
  expect(field(/Note: overspray/).value).toBe('onto the path');
  expect(field(/Note: leak/).value).toBe('by the gate');
  fireEvent.focus(field(/Note: overspray/));
  fireEvent.blur(field(/Note: overspray/));
  expect(saved).toHaveBeenCalledTimes(1);
});
