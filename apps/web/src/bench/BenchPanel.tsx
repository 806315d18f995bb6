import { useEffect, useRef, type KeyboardEvent } from 'react';
import { Button } from 'antd';
import { LeftOutlined, RightOutlined } from '@ant-design/icons';
import type { BenchKey, Display, Lamps, Plan } from '@water-clock/core';

/** By the keyboard, while the panel has the focus. */
const BY_KEYBOARD: Readonly<Record<string, BenchKey>> = {
  ArrowLeft: 'page-back',
  ArrowRight: 'page-on',
  ArrowDown: 'less',
  ArrowUp: 'more',
  '-': 'less',
  '+': 'more',
  p: 'program',
  h: 'by-hand',
  s: 'store',
  r: 'rest',
};

const HOLDABLE: readonly BenchKey[] = ['less', 'more', 'page-back', 'page-on'];
/** A key that is held presses again after so long. */
const AGAIN_MILLISECONDS = 250;
/** After so many times it goes by larger steps. */
const HELD_LONG = 8;

interface Props {
  readonly display: Display;
  readonly lamps: Lamps;
  readonly plan: Plan;
  /** Keys that do nothing here. */
  readonly without: readonly BenchKey[];
  /** `fast`: the key is held. */
  readonly press: (key: BenchKey, fast: boolean) => void;
}

/** One setting, large; blank without power. */
function Screen({ display }: { readonly display: Display }) {
  const { isLit, left, right, big, unit, place, clock, flashes, isDraft, isResting } = display;
  const said = `${left} ${right} ${big} ${unit}`;
  return (
    <div className={isLit ? 'bench-screen' : 'bench-screen bench-dark'}>
      {/* The time of day is not read out each minute: it has no place among the pages. */}
      <p className="hidden-but-read" aria-live="polite">
        {isLit ? (place === '' && left !== 'by hand' ? '' : said) : 'The display is blank.'}
      </p>
      <p className="row spread" aria-hidden>
        <span>{left}</span>
        <span>{right}</span>
      </p>
      <p className={flashes && place === '' ? 'bench-big bench-flashing' : 'bench-big'} aria-hidden>
        {big} {unit && <small>{unit}</small>}
      </p>
      <p className="row spread" aria-hidden>
        <span>{isDraft ? 'not stored' : place && `page ${place}`}</span>
        <span>{isResting && left !== '' ? 'at rest' : place && `clock ${clock}`}</span>
      </p>
    </div>
  );
}

function Lamp({ name, isOn }: { readonly name: string; readonly isOn: boolean }) {
  return (
    <li className={isOn ? 'bench-lamp bench-on' : 'bench-lamp'}>
      <span aria-hidden>{isOn ? '●' : '○'}</span>
      <span>{name}</span>
      {isOn && <span className="hidden-but-read">on</span>}
    </li>
  );
}

/** The panel of a bench timer: its display, its keys, its lamps. */
export function BenchPanel({ display, lamps, plan, without, press }: Props) {
  const held = useRef(0);
  const isFast = (again: boolean) => {
    held.current = again ? held.current + 1 : 0;
    return held.current > HELD_LONG;
  };
  const holding = useRef<ReturnType<typeof setInterval>>(undefined);
  const letGo = () => clearInterval(holding.current);
  useEffect(() => letGo, []);
  // The interval outlives the drawing that began it.
  const pressNow = useRef(press);
  useEffect(() => {
    pressNow.current = press;
  });
  const hold = (key: BenchKey) => {
    letGo();
    held.current = 0;
    holding.current = setInterval(() => pressNow.current(key, isFast(true)), AGAIN_MILLISECONDS);
  };
  const byKeyboard = (event: KeyboardEvent) => {
    const key = event.ctrlKey || event.metaKey || event.altKey ? undefined : BY_KEYBOARD[event.key];
    if (!key || without.includes(key)) return;
    event.preventDefault();
    // The page's own keys are not meant here.
    event.stopPropagation();
    press(key, isFast(event.repeat) || (event.shiftKey && event.key.startsWith('Arrow')));
  };
  const key = (name: BenchKey, words: React.ReactNode, label?: string, danger = false) => (
    <Button
      size="large"
      danger={danger}
      disabled={without.includes(name)}
      aria-label={label}
      onClick={() => press(name, false)}
      {...(HOLDABLE.includes(name)
        ? {
            onPointerDown: () => hold(name),
            onPointerUp: letGo,
            onPointerLeave: letGo,
            onPointerCancel: letGo,
          }
        : {})}
    >
      {words}
    </Button>
  );
  return (
    <section className="bench-box stack" aria-label="Panel of the timer" onKeyDown={byKeyboard}>
      <Screen display={display} />
      <div className="bench-keys">
        {key(
          'page-back',
          <>
            <LeftOutlined aria-hidden /> page
          </>,
          'Page back',
        )}
        {key('less', '−', 'Less')}
        {key('more', '+', 'More')}
        {key(
          'page-on',
          <>
            page <RightOutlined aria-hidden />
          </>,
          'Page on',
        )}
        {key('program', 'program')}
        {key('by-hand', 'by hand')}
        {key('store', 'store')}
        {key('rest', 'rest', undefined, true)}
      </div>
      <ul className="list bench-lamps" aria-label="Lamps of the stations">
        {plan.stations.map(({ number }) => (
          <Lamp key={number} name={String(number)} isOn={lamps.stations.includes(number)} />
        ))}
      </ul>
      <ul className="list bench-lamps" aria-label="Other lamps">
        <Lamp name="pump" isOn={lamps.pump} />
        <Lamp name="main" isOn={lamps.main} />
        <Lamp name="rain" isOn={lamps.rain} />
        <Lamp name="power" isOn={lamps.power} />
      </ul>
    </section>
  );
}
