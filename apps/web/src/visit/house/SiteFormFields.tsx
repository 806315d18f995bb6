import { useId } from 'react';
import { AutoComplete, Button, Input } from 'antd';
import {
  LANGUAGES,
  quantityWords,
  SUPPLIES,
  SUPPLY_WORDS,
  type WeatherTown,
  say,
} from '@water-clock/core';
import { LANGUAGE_NAMES } from '@water-clock/words';
import { useLibrary } from '../../data/api/library.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { knownZones } from '../../app/platform/zone.ts';
import { WeekdayButtons } from '../../shared/fields/WeekdayButtons.tsx';
import { useTowns } from '../../data/api/weather.ts';
import { PeopleFields } from './PeopleFields.tsx';
import { mowingOf, type SiteFaults, type SiteForm } from './siteForm.ts';
import { QuantityField } from '../../shared/fields/QuantityField.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';

/** Litres a minute. */
const MOST_FLOW = 1000;

interface Props {
  readonly form: SiteForm;
  readonly faults: SiteFaults;
  readonly change: (form: SiteForm) => void;
}

interface FactProps extends Props {
  readonly name: Exclude<keyof SiteForm, 'people'>;
  readonly label: string;
  readonly empty: string;
  readonly options: readonly (readonly [value: string, words: string])[];
}

/** A fact of the site chosen from a list. */
function Fact({ form, change, name, label, empty, options }: FactProps) {
  return (
    <SelectField
      label={label}
      value={form[name]}
      options={[['', empty], ...options]}
      pick={(value) => change({ ...form, [name]: value })}
    />
  );
}

/** The form with a town; sets its time zone and coordinates. */
const atTown = (form: SiteForm, town: WeatherTown): SiteForm => ({
  ...form,
  town: town.id,
  climateId: '',
  timeZone: town.timeZone,
  latitude: String(town.latitude),
  longitude: String(town.longitude),
});

/** Name and address of a site, and its rules, weather and water. */
export function SiteFormFields({ form, faults, change }: Props) {
  const zones = useId();
  const { units } = usePreferences();
  const towns = useTowns();
  const rules = useLibrary('rules');
  const climates = useLibrary('climates');
  const minutes = useLibrary('minutes');
  const common = { form, faults, change };
  const field = (
    key: 'name' | 'houseNumber' | 'street' | 'locality' | 'latitude' | 'longitude',
    label: string,
    more: object = {},
  ) => (
    <label className="labelled">
      {label}
      <Input
        name={key}
        value={form[key]}
        aria-invalid={faults[key] !== undefined}
        onChange={(event) => change({ ...form, [key]: event.target.value })}
        {...more}
        status={faults[key] !== undefined ? 'error' : ''}
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
      <div className="tiles fill of-150">
        {field('name', say`Name`, { placeholder: say`Quince Cottage` })}
        {field('houseNumber', say`Street number`, { placeholder: '17a' })}
        {field('street', say`Street`, { autoComplete: 'off' })}
        {field('locality', say`Town`, { autoComplete: 'off' })}
      </div>
      <div className="tiles fill of-150">
        <Fact
          {...common}
          name="supply"
          label={say`Water source`}
          empty={say`not recorded`}
          options={SUPPLIES.map((one) => [one, SUPPLY_WORDS[one]])}
        />
        <QuantityField
          label={say`Supply flow`}
          quantity="flow"
          empty={say`not measured`}
          value={form.supplyFlow === '' ? null : Number(form.supplyFlow)}
          commit={(value) => {
            if (value !== null && (value <= 0 || value > MOST_FLOW))
              return say`Enter a flow above 0 and up to ${quantityWords(units, 'flow', MOST_FLOW)}, or leave this empty.`;
            change({ ...form, supplyFlow: value === null ? '' : String(value) });
            return null;
          }}
        />
        <Fact
          {...common}
          name="rulesId"
          label={say`Watering rules`}
          empty={say`none`}
          options={(rules.data ?? []).map(({ id, document }) => [id, document.name])}
        />
      </div>
      <SelectField
        label={say`Weather from`}
        value={form.climateId || form.town}
        options={[
          ['', say`none`] as const,
          ...(climates.data ?? []).map(
            ({ id, document }) => [id, say`${document.name} (your library)`] as const,
          ),
          ...(towns.data ?? []).map(({ id, name, region }) => [id, `${name}, ${region}`] as const),
        ]}
        pick={takeWeather}
      />
      <div className="labelled">
        {say`Mowing days`}
        <WeekdayButtons
          label={say`Mowing days`}
          timer={{}}
          pressed={mowingOf(form)}
          commit={(mowing) => change({ ...form, mowing: mowing.join(' ') })}
        />
      </div>
      <PeopleFields {...common} />
      <label className="labelled">
        {say`Notes`}
        <Input.TextArea
          name="notes"
          rows={3}
          value={form.notes}
          aria-invalid={faults.notes !== undefined}
          onChange={(event) => change({ ...form, notes: event.target.value })}
          status={faults.notes !== undefined ? 'error' : ''}
        />
        {faults.notes && <span className="fault">{faults.notes}</span>}
      </label>
      <Disclosure
        className="site-more"
        mustBeOpen={Boolean(faults.timeZone ?? faults.latitude ?? faults.longitude)}
        summary={say`Zone, coordinates, units`}
      >
        {() => (
          <div className="site-form stack column">
            <div className="labelled">
              <label htmlFor={zones}>{say`Time zone`}</label>
              <AutoComplete
                id={zones}
                value={form.timeZone}
                status={faults.timeZone === undefined ? '' : 'error'}
                options={knownZones().map((zone) => ({ value: zone }))}
                showSearch={{
                  filterOption: (typed, option) =>
                    (option?.value ?? '').toLowerCase().includes(typed.toLowerCase()),
                }}
                onChange={(timeZone: string) => change({ ...form, timeZone })}
              />
              {faults.timeZone && <span className="fault">{faults.timeZone}</span>}
            </div>
            <div className="tiles fill of-150">
              {field('latitude', say`Latitude`, { inputMode: 'decimal', placeholder: '-34.21' })}
              {field('longitude', say`Longitude`, { inputMode: 'decimal', placeholder: '139.86' })}
            </div>
            <p className="soft">
              {say`Optional. Coordinates give sunset and sunrise.`}{' '}
              <Button onClick={here}>{say`Use this device’s location`}</Button>
            </p>
            <div className="tiles fill of-150">
              <Fact
                {...common}
                name="units"
                label={say`Units at this site`}
                empty={say`metric`}
                options={[
                  ['metric', say`metric: mm, m², litres`],
                  ['us', say`inches, feet, US gallons`],
                ]}
              />
              <Fact
                {...common}
                name="clockStyle"
                label={say`Time format at this site`}
                empty={say`your preference`}
                options={[
                  ['24', '17:30'],
                  ['12', say`5:30 pm`],
                ]}
              />
              <Fact
                {...common}
                name="language"
                label={say`Homeowner’s page language`}
                empty="English"
                options={LANGUAGES.map((one) => [one, LANGUAGE_NAMES[one]])}
              />
            </div>
            <Fact
              {...common}
              name="minutesId"
              label={say`Minutes table`}
              empty={say`default`}
              options={(minutes.data ?? []).map(({ id, document }) => [id, document.name])}
            />
          </div>
        )}
      </Disclosure>
    </>
  );
}
