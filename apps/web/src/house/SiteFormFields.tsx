import { useId } from 'react';
import { SUPPLIES, SUPPLY_WORDS, type WeatherTown } from '@water-clock/core';
import { useLibrary } from '../api/library.ts';
import { knownZones } from '../platform/zone.ts';
import { WeekdayButtons } from '../fields/WeekdayButtons.tsx';
import { useTowns } from '../api/weather.ts';
import { PeopleFields } from './PeopleFields.tsx';
import { mowingOf, type SiteFaults, type SiteForm } from './siteForm.ts';

interface Props {
  readonly form: SiteForm;
  readonly faults: SiteFaults;
  readonly change: (form: SiteForm) => void;
}

interface SelectProps extends Props {
  readonly name: Exclude<keyof SiteForm, 'people'>;
  readonly label: string;
  readonly empty: string;
  readonly options: readonly (readonly [value: string, words: string])[];
}

function SelectField({ form, change, name, label, empty, options }: SelectProps) {
  return (
    <label className="labelled">
      {label}
      <select
        className="field"
        name={name}
        value={form[name]}
        onChange={(event) => change({ ...form, [name]: event.target.value })}
      >
        <option value="">{empty}</option>
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** A form at a town: its hours and its coordinates go with it. */
const atTown = (form: SiteForm, town: WeatherTown): SiteForm => ({
  ...form,
  town: town.id,
  climateId: '',
  timeZone: town.timeZone,
  latitude: String(town.latitude),
  longitude: String(town.longitude),
});

/** Name and number of a house, and its rules, weather and water. */
export function SiteFormFields({ form, faults, change }: Props) {
  const zones = useId();
  const towns = useTowns();
  const rules = useLibrary('rules');
  const climates = useLibrary('climates');
  const minutes = useLibrary('minutes');
  const common = { form, faults, change };
  const field = (
    key: 'name' | 'houseNumber' | 'timeZone' | 'latitude' | 'longitude',
    label: string,
    more: object = {},
  ) => (
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
  const takeWeather = (of: string) => {
    const town = towns.data?.find(({ id }) => id === of);
    change(town ? atTown(form, town) : { ...form, town: '', climateId: of });
  };
  return (
    <>
      <div className="site-form-pair">
        {field('name', 'Name', { placeholder: 'Quince Cottage' })}
        {field('houseNumber', 'Number in the street', { placeholder: '17a' })}
      </div>
      <div className="site-form-pair">
        <SelectField
          {...common}
          name="supply"
          label="Its water comes from"
          empty="not noted"
          options={SUPPLIES.map((one) => [one, SUPPLY_WORDS[one]])}
        />
        <SelectField
          {...common}
          name="rulesId"
          label="Watering rules"
          empty="none chosen"
          options={(rules.data ?? []).map(({ id, document }) => [id, document.name])}
        />
      </div>
      <label className="labelled">
        Weather of
        <select
          className="field"
          name="weather"
          value={form.climateId || form.town}
          onChange={(event) => takeWeather(event.target.value)}
        >
          <option value="">no place chosen</option>
          {(climates.data ?? []).map(({ id, document }) => (
            <option key={id} value={id}>
              {document.name} (of your library)
            </option>
          ))}
          {(towns.data ?? []).map(({ id, name, region }) => (
            <option key={id} value={id}>
              {name}, {region}
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
      <PeopleFields {...common} />
      <label className="labelled">
        Notes
        <textarea
          className="field site-notes"
          name="notes"
          rows={2}
          value={form.notes}
          aria-invalid={faults.notes !== undefined}
          onChange={(event) => change({ ...form, notes: event.target.value })}
        />
        {faults.notes && <span className="fault">{faults.notes}</span>}
      </label>
      <details
        className="site-more"
        open={Boolean(faults.timeZone ?? faults.latitude ?? faults.longitude)}
      >
        <summary>Zone, coordinates, units</summary>
        <div className="site-form">
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
            The coordinates give sunset and sunrise; they may stay empty.{' '}
            <button type="button" className="plain-button" onClick={here}>
              Take this device's place
            </button>
          </p>
          <div className="site-form-pair">
            <SelectField
              {...common}
              name="units"
              label="Units at this house"
              empty="metric"
              options={[
                ['metric', 'metric: mm, m², litres'],
                ['us', 'inches, feet, US gallons'],
              ]}
            />
            <SelectField
              {...common}
              name="clockStyle"
              label="Hours at this house"
              empty="as you like them"
              options={[
                ['24', '17:30'],
                ['12', '5:30 pm'],
              ]}
            />
          </div>
          <SelectField
            {...common}
            name="minutesId"
            label="Table of minutes"
            empty="the usual one"
            options={(minutes.data ?? []).map(({ id, document }) => [id, document.name])}
          />
        </div>
      </details>
    </>
  );
}
