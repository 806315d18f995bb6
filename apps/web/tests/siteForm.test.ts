import { describe, expect, test } from '@jest/globals';
import { isZone } from '../src/app/platform/zone.ts';
import { formOf, readSiteForm, type SiteForm } from '../src/visit/house/siteForm.ts';

const sound: SiteForm = {
  name: ' Heron Yard ',
  houseNumber: '',
  street: ' Mill Lane ',
  locality: 'Dunnock',
  supplyFlow: '40',
  timeZone: 'Europe/Lisbon',
  latitude: '−34,5',
  longitude: '139.25',
  supply: 'bore',
  mowing: 'sat wed',
  notes: ' gate code with the neighbour ',
  people: [
    { name: 'Ida', role: 'owner', phone: '' },
    { name: '', role: '', phone: '' },
  ],
  units: 'us',
  clockStyle: '',
  language: 'es',
  town: 'marrowby',
  climateId: '',
  rulesId: '',
  minutesId: '',
};

describe('what is typed about a house', () => {
  test('is read as it is meant, and written back as it was read', () => {
    const read = readSiteForm(sound, isZone);
    expect(read).toEqual({
      site: {
        name: 'Heron Yard',
        houseNumber: null,
        street: 'Mill Lane',
        locality: 'Dunnock',
        supplyFlow: 40,
        timeZone: 'Europe/Lisbon',
        latitude: -34.5,
        longitude: 139.25,
        supply: 'bore',
        mowing: ['wed', 'sat'],
        notes: 'gate code with the neighbour',
        people: [{ name: 'Ida', role: 'owner', phone: '' }],
        units: 'us',
        clockStyle: null,
        language: 'es',
        town: 'marrowby',
        climateId: null,
        rulesId: null,
        minutesId: null,
      },
    });
    if (!('site' in read)) throw new Error('not read');
    expect(readSiteForm(formOf(read.site), isZone)).toEqual(read);
  });

  const wrong: [string, Partial<SiteForm>, (keyof SiteForm)[]][] = [
    ['a person without a name', { people: [{ name: ' ', role: 'owner', phone: '' }] }, ['people']],
    ['no name', { name: '   ' }, ['name']],
    ['a name as long as a letter', { name: 'x'.repeat(121) }, ['name']],
    ['a number that is none', { houseNumber: '7'.repeat(41) }, ['houseNumber']],
    ['an unknown zone', { timeZone: 'Nowhere/Land' }, ['timeZone']],
    ['no zone', { timeZone: '' }, ['timeZone']],
    ['beyond the pole', { latitude: '90.1' }, ['latitude']],
    ['beyond the date line', { longitude: '-180.5' }, ['longitude']],
    ['words for degrees', { latitude: 'south' }, ['latitude']],
    ['a novel in the notes', { notes: 'x'.repeat(2001) }, ['notes']],
    ['half a place', { longitude: '' }, ['longitude']],
    ['everything', { name: '', timeZone: '?', latitude: '999' }, ['name', 'timeZone', 'latitude']],
  ];
  test.each(wrong)('%s is told at its field alone', (_name, change, fields) => {
    const read = readSiteForm({ ...sound, ...change }, isZone);
    const faults = 'faults' in read ? read.faults : {};
    expect(Object.keys(faults)).toEqual(fields);
    for (const words of Object.values(faults)) expect(words.length).toBeGreaterThan(10);
  });

  test('a place may be left out, as a whole; zones go by any of their names', () => {
    const read = readSiteForm({ ...sound, latitude: ' ', longitude: '' }, isZone);
    expect('site' in read && [read.site.latitude, read.site.longitude]).toEqual([null, null]);
    expect(['UTC', 'Etc/GMT-3', 'Australia/Adelaide'].every(isZone)).toBe(true);
    expect(['Mars/Base', ' ', 'UTC+25'].some(isZone)).toBe(false);
  });
});
