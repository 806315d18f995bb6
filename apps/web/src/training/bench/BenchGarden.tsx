import { quantityWords, type Bed, type UnitSystem, say } from '@water-clock/core';

const clockLength = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;

function bedWords({ isWet, secondsLeft, seconds, litres }: Bed, units: UnitSystem): string {
  if (isWet && secondsLeft === null) return say`its valve does not close`;
  if (secondsLeft !== null) return say`running, ${clockLength(secondsLeft)} left`;
  if (seconds === 0) return say`no water yet`;
  const minutes = say`${Math.round(seconds / 60)} min`;
  return litres === null ? minutes : `${minutes}, ${quantityWords(units, 'volume', litres)}`;
}

/** The garden of the timer: a bed for each station. */
export function BenchGarden({
  beds,
  units,
}: {
  readonly beds: readonly Bed[];
  readonly units: UnitSystem;
}) {
  return (
    <ul className="list tiles of-150" aria-label={say`The garden`}>
      {beds.map((bed) => (
        <li key={bed.station} className={bed.isWet ? 'aside accent bench-wet' : 'aside'}>
          <span>
            <strong>{bed.station}</strong> {bed.name}
          </span>
          <br />
          <span className="soft">{bedWords(bed, units)}</span>
        </li>
      ))}
    </ul>
  );
}
