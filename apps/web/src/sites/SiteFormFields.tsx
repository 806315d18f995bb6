import { useId } from 'react';
import { knownZones } from '../platform/zone.ts';
import type { SiteFaults, SiteForm } from './siteForm.ts';

interface Props {
  readonly form: SiteForm;
  readonly faults: SiteFaults;
  readonly change: (form: SiteForm) => void;
}

/** Name, number, time zone and place of a house. */
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
    </>
  );
}
