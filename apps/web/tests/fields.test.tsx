/** All typed fields behave alike: shown while typing, made on leaving, refused at the field, reverted by Escape and undo. */
import './patience.ts';
import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState, type ReactNode } from 'react';
import { LabelledTime } from '../src/shared/fields/LabelledTime.tsx';
import { LengthField } from '../src/shared/fields/LengthField.tsx';
import { NumberField } from '../src/shared/fields/NumberField.tsx';
import { QuantityField } from '../src/shared/fields/QuantityField.tsx';
import { SelectField } from '../src/shared/fields/SelectField.tsx';
import { Switch } from '../src/shared/fields/Switch.tsx';
import { WeekdayButtons } from '../src/shared/fields/WeekdayButtons.tsx';
import { HouseStyle, PreferencesProvider } from '../src/app/platform/preferences.tsx';

afterEach(cleanup);

const shown = (field: ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <PreferencesProvider>
        <HouseStyle clock="12" units="us">
          {field}
        </HouseStyle>
      </PreferencesProvider>
    </QueryClientProvider>,
  );
const field = () => screen.getByRole<HTMLInputElement>('textbox');
const typed = (text: string) => fireEvent.change(field(), { target: { value: text } });
const key = (name: string, more: object = {}) => fireEvent.keyDown(field(), { key: name, ...more });

/** What each field makes of typed text, and its message if it cannot read it. */
interface Kind {
  readonly render: (commit: (value: unknown) => string | null) => ReactNode;
  readonly stands: string;
  readonly good: readonly [typed: string, made: unknown];
  readonly bad: readonly [typed: string, told: RegExp];
}

function Told({
  children,
}: {
  readonly children: (say: (fault: string | null) => void) => ReactNode;
}) {
  const [fault, say] = useState<string | null>(null);
  return (
    <>
      {children(say)}
      <p>{fault}</p>
    </>
  );
}

const KINDS: Readonly<Record<string, Kind>> = {
  time: {
    render: (commit) => <LabelledTime label="From" value="17:30" commit={commit} />,
    stands: '5:30 pm',
    good: ['6:15p', '18:15'],
    bad: ['25:00', /“25:00” is not a time\. Type a time such as/],
  },
  length: {
    render: (commit) => (
      <Told>{(say) => <LengthField label="Run" value={600} commit={commit} tell={say} />}</Told>
    ),
    stands: '10',
    good: ['1h20', 4800],
    bad: ['soon', /“soon” is not a run time\. Type minutes such as/],
  },
  number: {
    render: (commit) => (
      <NumberField label="Percent" value={100} least={10} most={300} commit={commit} />
    ),
    stands: '100',
    good: ['150', 150],
    bad: ['900', /“900” cannot be used here\. Enter a number from 10 to 300\./],
  },
  quantity: {
    render: (commit) => (
      <QuantityField
        label="Area"
        quantity="area"
        value={9.290304}
        empty="not known"
        commit={commit}
      />
    ),
    stands: '100',
    good: ['50', 4.645152],
    bad: [
      '-4',
      /“-4” cannot be used here\. Enter a number from 0 to 999999, or leave this empty\./,
    ],
  },
};

describe.each(Object.entries(KINDS))(
  'a field for a %s',
  (_, { render: make, stands, good, bad }) => {
    const [goodText, made] = good;
    const [badText, told] = bad;

    test('shows what is set, and makes what is typed by Enter and by leaving it, once', () => {
      const commit = jest.fn<(value: unknown) => string | null>(() => null);
      shown(make(commit));
      expect(field().value).toBe(stands);
      fireEvent.blur(field());
      typed(goodText);
      expect(commit).not.toHaveBeenCalled();
      key('Enter');
      expect(commit.mock.calls).toEqual([
        [typeof made === 'number' ? expect.closeTo(made, 9) : made],
      ]);
      typed(goodText);
      fireEvent.blur(field());
      expect(commit).toHaveBeenCalledTimes(2);
      // The current value is no change.
      typed(stands);
      fireEvent.blur(field());
      expect(commit).toHaveBeenCalledTimes(2);
    });

    test('says what is wrong and what is allowed, keeps what was typed, and makes nothing', () => {
      const commit = jest.fn<(value: unknown) => string | null>(() => null);
      const { container } = shown(make(commit));
      typed(badText);
      fireEvent.blur(field());
      expect(container.textContent).toMatch(told);
      expect(field().value).toBe(badText);
      expect(field().getAttribute('aria-invalid')).toBe('true');
      expect(commit).not.toHaveBeenCalled();
      typed(goodText);
      expect(container.textContent).not.toMatch(told);
      expect(field().getAttribute('aria-invalid')).toBe('false');
    });

    test('takes back what was typed by Escape and by undo, and undo of nothing is left to the page', () => {
      const commit = jest.fn<(value: unknown) => string | null>(() => null);
      shown(make(commit));
      for (const back of [['Escape'], ['z', { ctrlKey: true }]] as const) {
        typed(badText);
        fireEvent.blur(field());
        expect(key(...(back as [string]))).toBe(back[0] === 'Escape');
        expect(field().value).toBe(stands);
        expect(field().getAttribute('aria-invalid')).toBe('false');
      }
      expect(key('z', { ctrlKey: true })).toBe(true);
      expect(commit).not.toHaveBeenCalled();
    });

    test('says why something was refused, and keeps it', () => {
      const { container } = shown(make(() => 'Not possible: it is taken.'));
      typed(goodText);
      key('Enter');
      expect(container.textContent).toMatch(/Not possible: it is taken\./);
      expect(field().value).toBe(goodText);
    });
  },
);

test('the arrows step a time by five minutes round midnight, and a length by its step', () => {
  const commit = jest.fn<(value: unknown) => void>();
  const { unmount } = shown(<LabelledTime label="At" value="23:58" commit={commit} />);
  key('ArrowUp');
  expect(field().value).toBe('12:00 am');
  key('ArrowUp');
  key('ArrowDown');
  key('Enter');
  expect(commit.mock.calls).toEqual([['00:00']]);
  unmount();
  shown(
    <LengthField
      label="Run"
      value={90}
      stepSeconds={30}
      mostSeconds={120}
      commit={commit}
      tell={() => undefined}
    />,
  );
  for (let i = 0; i < 3; i++) key('ArrowUp');
  expect(field().value).toBe('2');
});

test('weekdays are pressed one by one, and named in full where only their letter shows', () => {
  const commit = jest.fn();
  shown(
    <WeekdayButtons
      label="Days"
      short
      timer={{ dialect: { weekOrder: 'sun' } } as never}
      pressed={['mon']}
      commit={commit}
    />,
  );
  const [first] = screen.getAllByRole('button');
  expect([first?.getAttribute('aria-label'), first?.textContent]).toEqual(['Sun', 'S']);
  expect(screen.getByRole('button', { name: 'Mon' }).getAttribute('aria-pressed')).toBe('true');
  fireEvent.click(screen.getByRole('button', { name: 'Thu' }));
  fireEvent.click(screen.getByRole('button', { name: 'Mon' }));
  expect(commit.mock.calls).toEqual([[['mon', 'thu']], [[]]]);
});

test('a list and a switch give the value and not its words', () => {
  const pick = jest.fn();
  shown(
    <>
      <SelectField
        label="Soil"
        value=""
        placeholder="not known"
        options={[['clay', 'heavy clay']]}
        pick={pick}
      />
      <Switch
        label="Hours"
        value="12"
        options={[
          ['12', '5:30 pm'],
          ['24', '17:30'],
        ]}
        pick={pick}
      />
    </>,
  );
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'Soil' }));
  fireEvent.click(screen.getByTitle('heavy clay'));
  fireEvent.click(screen.getByText('17:30'));
  expect(pick.mock.calls.map(([value]) => value as string)).toEqual(['clay', '24']);
});
