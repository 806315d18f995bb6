import { RUNG_WORDS, RUNGS, type RungTried, say } from '@water-clock/core';
import { Chips } from '../../shared/fields/Chips.tsx';
import { NoteField } from '../../shared/fields/NoteField.tsx';

/** Finding a dead station, step by step. */
export function Ladder({
  station,
  name,
  tried,
  set,
}: {
  readonly station: number;
  readonly name: string;
  readonly tried: readonly RungTried[];
  readonly set: (next: readonly RungTried[]) => void;
}) {
  const of = (rung: RungTried['rung']) =>
    tried.find((tried) => tried.station === station && tried.rung === rung);
  const put = (rung: RungTried['rung'], next: RungTried | null) =>
    set([
      ...tried.filter((tried) => !(tried.station === station && tried.rung === rung)),
      ...(next ? [next] : []),
    ]);
  return (
    <section
      id={`ladder-${station}`}
      className="aside stack"
      aria-label={say`Troubleshoot station ${station}`}
    >
      <h2>{say`Station ${station} ${name}`}</h2>
      <p className="caution">{say`Mains voltage inside a wall timer. Switch it off at the supply before you open the wiring compartment. Mains work is for a licensed electrician. Follow local code.`}</p>
      {RUNGS.map((rung) => {
        const noted = of(rung);
        return (
          <div key={rung} className="rung row at-foot">
            <Chips
              label={RUNG_WORDS[rung]}
              options={[
                ['good', say`Good`],
                ['bad', say`Bad`],
              ]}
              value={noted === undefined ? null : noted.good ? 'good' : 'bad'}
              pick={(value) =>
                put(
                  rung,
                  value === null ? null : { ...noted, station, rung, good: value === 'good' },
                )
              }
            />
            {noted && (
              <NoteField
                label={say`${RUNG_WORDS[rung]}: reading`}
                placeholder={say`reading, such as 27 V or 38 Ω`}
                most={80}
                value={noted.reading ?? ''}
                commit={(reading) => {
                  const { reading: _old, ...rest } = noted;
                  put(rung, reading === '' ? rest : { ...rest, reading });
                }}
              />
            )}
          </div>
        );
      })}
    </section>
  );
}
