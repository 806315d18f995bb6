import { useEffect, useRef, type CSSProperties, type KeyboardEvent } from 'react';
import { Button, Col, Row } from 'antd';
import { LeftOutlined, RightOutlined } from '@ant-design/icons';
import type { BenchKey, Display, Lamps, Plan } from '@water-clock/core';
import { say } from '@water-clock/core';

/** By keyboard, while the panel has the focus. */
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

/** With four keys across a phone, long words wrap. */
const KEY_STYLE: CSSProperties = {
  paddingInline: 2,
  height: '100%',
  minHeight: 48,
  whiteSpace: 'normal',
  overflowWrap: 'anywhere',
};

const HOLDABLE: readonly BenchKey[] = ['less', 'more', 'page-back', 'page-on'];
/** Delay before a held key repeats. */
const AGAIN_MILLISECONDS = 250;
/** Repeats before the steps get larger. */
const HELD_LONG = 8;

interface Props {
  readonly display: Display;
  readonly lamps: Lamps;
  readonly plan: Plan;
  /** Changes each second. */
  readonly isEven: boolean;
  /** Keys that do nothing here. */
  readonly without: readonly BenchKey[];
  /** `fast`: the key is held. */
  readonly press: (key: BenchKey, fast: boolean) => void;
}

/** A space, so that an empty line keeps its height. */
const EMPTY = '\u00a0';

/** One setting in large type; blank without power. A clock that was never set blinks. */
export function Screen({
  display,
  isEven,
}: {
  readonly display: Display;
  readonly isEven: boolean;
}) {
  const { isLit, left, right, big, unit, place, clock, flashes, isDraft, isResting } = display;
  const isGone = flashes && place === '' && !isEven;
  const foot = isResting ? say`off` : place === '' ? EMPTY : say`clock ${clock}`;
  return (
    <div className="bench-screen">
      {/* The time is not announced each minute; it is not one of the pages. */}
      <p className="hidden-but-read" aria-live="polite">
        {!isLit && say`The display is blank.`}
        {isLit && (place !== '' || left === say`manual`) && `${left} ${right} ${big} ${unit}`}
      </p>
      <p className="row spread" aria-hidden>
        <span>{left || EMPTY}</span>
        <span>{right}</span>
      </p>
      <p className="huge" style={{ textAlign: 'center' }} aria-hidden>
        {isGone || big === '' ? EMPTY : big} {!isGone && unit && <small>{unit}</small>}
      </p>
      <p className="row spread" aria-hidden>
        <span>{isDraft ? say`not entered` : place && say`page ${place}`}</span>
        <span>{isLit ? foot : EMPTY}</span>
      </p>
    </div>
  );
}

function Lamp({ name, isOn }: { readonly name: string; readonly isOn: boolean }) {
  return (
    <li className={isOn ? 'calm heavy' : ''}>
      <span aria-hidden>{isOn ? '●' : '○'}</span> {name}
      {isOn && <span className="hidden-but-read"> {say`on`}</span>}
    </li>
  );
}

/** A bench timer's panel: display, keys and lights. */
export function BenchPanel({ display, lamps, plan, isEven, without, press }: Props) {
  const held = useRef(0);
  const isFast = (again: boolean) => {
    held.current = again ? held.current + 1 : 0;
    return held.current > HELD_LONG;
  };
  const holding = useRef<ReturnType<typeof setInterval>>(undefined);
  /** The click at the end of a long press is not another press. */
  const wasHeld = useRef(false);
  const letGo = () => clearInterval(holding.current);
  useEffect(() => letGo, []);
  // The interval outlives the render that started it.
  const pressNow = useRef(press);
  useEffect(() => {
    pressNow.current = press;
  });
  const hold = (key: BenchKey) => {
    letGo();
    held.current = 0;
    wasHeld.current = false;
    holding.current = setInterval(() => {
      wasHeld.current = true;
      pressNow.current(key, isFast(true));
    }, AGAIN_MILLISECONDS);
  };
  const byKeyboard = (event: KeyboardEvent) => {
    const key = event.ctrlKey || event.metaKey || event.altKey ? undefined : BY_KEYBOARD[event.key];
    if (!key || without.includes(key)) return;
    event.preventDefault();
    // The page's own shortcuts do not apply here.
    event.stopPropagation();
    press(key, isFast(event.repeat) || (event.shiftKey && event.key.startsWith('Arrow')));
  };
  const key = (name: BenchKey, words: React.ReactNode, label?: string, danger = false) => (
    <Col span={6}>
      <Button
        block
        size="large"
        style={KEY_STYLE}
        danger={danger}
        disabled={without.includes(name)}
        aria-label={label}
        onClick={() => {
          if (!wasHeld.current) press(name, false);
          wasHeld.current = false;
        }}
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
    </Col>
  );
  return (
    <section className="stack" aria-label={say`Panel of the timer`} onKeyDown={byKeyboard}>
      <Screen display={display} isEven={isEven} />
      <Row gutter={[8, 8]}>
        {key(
          'page-back',
          <>
            <LeftOutlined aria-hidden /> {say`page`}
          </>,
          say`Page back`,
        )}
        {key('less', '−', say`Less`)}
        {key('more', '+', say`More`)}
        {key(
          'page-on',
          <>
            {say`page`} <RightOutlined aria-hidden />
          </>,
          say`Page on`,
        )}
        {key('program', say`program`)}
        {key('by-hand', say`manual`)}
        {key('store', say`enter`)}
        {key('rest', say`off`, undefined, true)}
      </Row>
      <ul className="list row" aria-label={say`Station lights`}>
        {plan.stations.map(({ number }) => (
          <Lamp key={number} name={String(number)} isOn={lamps.stations.includes(number)} />
        ))}
      </ul>
      <ul className="list row" aria-label={say`Other lights`}>
        <Lamp name={say`pump`} isOn={lamps.pump} />
        <Lamp name={say`master valve`} isOn={lamps.main} />
        <Lamp name={say`rain`} isOn={lamps.rain} />
        <Lamp name={say`short`} isOn={lamps.short} />
        <Lamp name={say`power`} isOn={lamps.power} />
      </ul>
    </section>
  );
}
