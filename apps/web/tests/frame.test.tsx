/** The frame at three widths: rail with words, rail of icons, phases at the bottom. Each reaches every step and shows its state. */
import './patience.ts';
import { afterEach, expect, test } from '@jest/globals';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { VisitFrame } from '../src/app/frame/VisitFrame.tsx';
import { PHASES, STEPS } from '../src/visit/steps/steps.ts';

afterEach(cleanup);

const MEDIA = globalThis.matchMedia;
/** A screen of a width in pixels. */
function shown(width: number, at = 'minutes', simple = false) {
  globalThis.matchMedia = (media) => ({
    ...MEDIA(media),
    matches: width >= Number(/min-width: (\d+)px/u.exec(media)?.[1] ?? Infinity),
  });
  return render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <VisitFrame
          timerId="t1"
          shown={at}
          simple={simple}
          site="Fennimore house"
          kind="Eight-station wall timer"
          states={{
            clock: { done: true, line: 'The clock reading is recorded.' },
            stations: { done: false, line: 'Walked 3 of 8.' },
            '': { done: false, alarm: true, line: 'Programs overlap.' },
          }}
          tools={<span>tools</span>}
          verdict={<p>verdict</p>}
        >
          <p>step</p>
        </VisitFrame>
      </MemoryRouter>
    </QueryClientProvider>,
  );
}
const stepLinks = (within_: HTMLElement) =>
  within(within_)
    .getAllByRole<HTMLAnchorElement>('link')
    .filter(({ pathname }) => pathname.startsWith('/timers/'));

test.each([1280, 800])(
  'at %d the rail leads to all steps in their order and marks the one shown',
  (width) => {
    const { container } = shown(width);
    const links = stepLinks(container);
    expect(links.map(({ textContent }) => textContent)).toEqual(STEPS.map(([, name]) => name));
    expect(links.filter((link) => link.getAttribute('aria-current'))).toEqual([
      screen.getByRole('link', { name: 'Minutes' }),
    ]);
    const item = (name: string) => screen.getByRole('menuitem', { name });
    item('done Clock');
    item('needs attention Programs');
    item('Stations');
    expect(screen.getByRole('heading', { level: 1 }).textContent).toMatch(
      /Fennimore house.*wall timer/,
    );
    expect(container.querySelector('.ant-layout-sider-collapsed') !== null).toBe(width === 800);
    expect(container.querySelector('.foot')).toBeNull();
  },
);

test('on a phone five phases stand at the foot; one opens its steps with what each still lacks', async () => {
  const { container } = shown(390);
  expect(container.querySelector('.rail')).toBeNull();
  const phases = within(screen.getByRole('navigation')).getAllByRole('button');
  expect(phases.map(({ textContent }) => textContent)).toEqual(PHASES.map(({ name }) => name));
  expect(
    phases.filter((one) => one.getAttribute('aria-current')).map((one) => one.textContent),
  ).toEqual(['Look']);
  fireEvent.click(screen.getByRole('button', { name: 'Look' }));
  // Its code is loaded when it is first opened.
  const sheet = await screen.findByRole('dialog', undefined, { timeout: 20_000 });
  expect(stepLinks(sheet).map(({ textContent }) => textContent?.trim())).toEqual([
    'Sightings',
    'Stations Walked 3 of 8.',
    'Minutes',
  ]);
});

test('the walk belongs to the stations', () => {
  shown(390, 'walk');
  expect(screen.getByText('Stations')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Look' }).getAttribute('aria-current')).toBe('step');
});
