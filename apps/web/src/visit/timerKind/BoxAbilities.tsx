import type { Timer } from '@water-clock/core';
import { Choice } from '../../shared/fields/Choice.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';
import { BY_HAND_WORDS, MEMORY_WORDS, OUTAGE_WORDS, RAIN_SENSOR_WORDS } from './abilityWords.ts';
import { say } from '@water-clock/core';

const AFTER_RESET = '2020-01-01T00:00';

/** What people, weather and power do to this timer. */
export function BoxAbilities({
  timer,
  commit,
}: {
  readonly timer: Timer;
  readonly commit: (more: Partial<Timer>) => string | null;
}) {
  const { manualDuring = 'replace', onRain = 'dry-run', powerLoss = {} } = timer;
  const { clock = 'kept', settings = 'kept' } = powerLoss;
  return (
    <>
      <h2 className="whole">{say`Manual run, rain and power cuts`}</h2>
      <Choice
        label={say`Manual run during a cycle`}
        value={manualDuring}
        words={BY_HAND_WORDS}
        commit={(to) => commit({ manualDuring: to })}
      />
      <Choice
        label={say`When the rain sensor is wet`}
        value={onRain}
        words={RAIN_SENSOR_WORDS}
        commit={(to) => commit({ onRain: to })}
      />
      <Choice
        label={say`Clock after a power cut`}
        value={clock}
        words={OUTAGE_WORDS}
        commit={(to) => commit({ powerLoss: { ...powerLoss, clock: to } })}
      />
      {clock === 'resets' && (
        <DateField
          label={say`It then shows`}
          withTime
          required
          value={timer.clockAfterReset ?? AFTER_RESET}
          commit={(to) => commit({ clockAfterReset: to })}
        />
      )}
      <Choice
        label={say`Settings after a power cut`}
        value={settings}
        words={MEMORY_WORDS}
        commit={(to) => commit({ powerLoss: { ...powerLoss, settings: to } })}
      />
    </>
  );
}
