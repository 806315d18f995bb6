import {
  openSwitches,
  rainSensorOf,
  SWITCHED,
  SWITCHED_WORDS,
  type Switched,
  say,
} from '@water-clock/core';
import { Chips } from '../../shared/fields/Chips.tsx';
import type { VisitPartProps } from '../shared/visitPart.ts';
import { useKind } from '../timerKind/useKind.ts';
import { NoteField } from '../../shared/fields/NoteField.tsx';

/** What this timer has that may be switched for the test: put back, or left for a reason. */
export function PutBack({ plan, survey, visit, editor }: VisitPartProps) {
  const kind = useKind(plan);
  const noted = visit.switched ?? [];
  const open = openSwitches(visit, plan);
  const exists: Readonly<Record<Switched, boolean>> = {
    bypass:
      plan.settings.sensor !== 'none' &&
      rainSensorOf(plan.settings, survey.device ?? {}).state !== 'none',
    off: true,
    delay: !kind || kind.rainDelay !== undefined,
    manual: true,
    disabled: plan.stations.length > 1,
  };
  const shown = SWITCHED.filter(
    (what) => exists[what] || open.includes(what) || noted.some((one) => one.what === what),
  );
  const set = (what: Switched, next: { putBack: boolean; reason?: string } | null) => {
    const all = [
      ...noted.filter((noted) => noted.what !== what),
      ...(next ? [{ what, ...next }] : []),
    ];
    editor.commit({ type: 'note-visit', fields: { switched: all.length > 0 ? all : null } });
  };
  return (
    <section aria-label={say`Put back`} className="leave-part part stack">
      <h2>{say`Put back what was switched`}</h2>
      {shown.map((what) => {
        const one = noted.find((each) => each.what === what);
        const isOpen = open.includes(what);
        return (
          <div key={what} className="switched row at-foot">
            <Chips
              label={SWITCHED_WORDS[what]}
              options={[
                ['back', say`Put back`],
                ['on', say`Still switched`],
              ]}
              value={one ? (one.putBack ? 'back' : 'on') : isOpen ? 'on' : null}
              pick={(value) => set(what, value === null ? null : { putBack: value === 'back' })}
            />
            {(isOpen || one?.reason !== undefined) && (
              <NoteField
                label={say`${SWITCHED_WORDS[what]}: reason it stays`}
                placeholder={say`reason it stays`}
                most={120}
                value={one?.reason ?? ''}
                commit={(reason) =>
                  set(what, reason === '' ? { putBack: false } : { putBack: false, reason })
                }
              />
            )}
          </div>
        );
      })}
    </section>
  );
}
