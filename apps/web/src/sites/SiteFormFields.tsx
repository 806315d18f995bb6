import { useId } from 'react';
import { SUPPLIES, type Supply } from '@water-clock/core';
import { knownZones } from '../platform/zone.ts';
import { WeekdayButtons } from '../timers/WeekdayButtons.tsx';
import { mowingOf, type SiteFaults, type SiteForm } from './siteForm.ts';

interface Props {
  readonly form: SiteForm;
  readonly faults: SiteFaults;
  readonly change: (form: SiteForm) => void;
}

const SUPPLY_WORDS: Record<Supply, string> = {
  mains: 'the mains',
  bore: 'a bore',
  pump: 'a pump from open water',
  tank: 'a tank',
};

/** Name, number, time zone, place, supply, mowing days and notes of a house. */
export function SiteFormFields({ form, faults, change }: Props) {
  const zones = useId();
  const field = (key: keyof SiteForm, label: string, more: object = {}) => (
    <label className="labelled">
      {label}
      <input
        className="field"
        name={key}
        value={form[key]}
        aria-invalid={faults[key] !== undefined}
        onChange={(event) => change({ ...form, [key]: event.target.value })}
        {...more}
      />
      {faults[key] && <span className="fault">{faults[key]}</span>}
    </label>
  );
  const here = () =>
    navigator.geolocation.getCurrentPosition(({ coords }) =>
      change({
        ...form,
        latitude: coords.latitude.toFixed(4),
        longitude: coords.longitude.toFixed(4),
      }),
    );
  return (
    <>
      <div className="site-form-pair">
        {field('name', 'Name', { placeholder: 'Quince Cottage' })}
        {field('houseNumber', 'Number in the street', { placeholder: '17a' })}
      </div>
      {field('timeZone', 'Time zone', { list: zones })}
      <datalist id={zones}>
        {knownZones().map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
      <div className="site-form-pair">
        {field('latitude', 'Latitude', { inputMode: 'decimal', placeholder: '-34.21' })}
        {field('longitude', 'Longitude', { inputMode: 'decimal', placeholder: '139.86' })}
      </div>
      <p className="soft">
        The place gives sunset and sunrise on the strip; it may stay empty.{' '}
        <button type="button" className="plain-button" onClick={here}>
          Take this device's place
        </button>
      </p>
      <label className="labelled">
        Its water comes from
        <select
          className="field"
          value={form.supply}
          onChange={(event) => change({ ...form, supply: event.target.value })}
        >
          <option value="">not noted</option>
          {SUPPLIES.map((one) => (
            <option key={one} value={one}>
              {SUPPLY_WORDS[one]}
            </option>
          ))}
        </select>
      </label>
      <div className="labelled">
        Mown on
        <WeekdayButtons
          label="Mowing days"
          timer={{}}
          pressed={mowingOf(form)}
          commit={(mowing) => change({ ...form, mowing: mowing.join(' ') })}
        />
      </div>
      <label className="labelled">
        Notes
        <textarea
          className="field site-notes"
          name="notes"
          rows={3}
          value={form.notes}
          aria-invalid={faults.notes !== undefined}
          onChange={(event) => change({ ...form, notes: event.target.value })}
        />
        {faults.notes && <span className="fault">{faults.notes}</span>}
      </label>
    </>
  );
}
