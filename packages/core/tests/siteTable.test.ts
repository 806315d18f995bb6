/** Sites from a spreadsheet. */
import { describe, expect, test } from '@jest/globals';
import { faultSentence, MOST_SITE_ROWS, readSiteTable } from '@water-clock/core';

const GIVEN = {
  timeZone: 'Europe/Lisbon',
  isZone: (name: string) => /^\w+\/\w+$/.test(name),
  kinds: [
    { id: 'wall', name: 'Eight-station wall timer' },
    { id: 'tap', name: 'Tap timer' },
  ],
} as const;
const read = (...lines: string[]) =>
  readSiteTable(
    lines.map((line) => line.split(';')),
    GIVEN,
  );
const told = (...lines: string[]) =>
  read(...lines).faults.map(
    ({ line, column, fault }) => `${line} ${column}: ${faultSentence(fault)}`,
  );

describe('sites from a spreadsheet', () => {
  test('headings in any order and any case; an empty cell is not noted', () => {
    const { entries, faults } = read(
      'Town;NAME;number;street;person;telephone;timer;supply;supply_l_min;latitude;longitude;notes',
      "Dunnock;Bell cottage;17a;Mill Lane;Ada Fell;'+44 5;tap timer;Mains;42,5;−34,5;139.25;gate code",
      ';Heron yard;;;;;;;;;;',
      ';;;;;;;;;;;',
    );
    expect(faults).toEqual([]);
    expect(entries).toHaveLength(2);
    expect(entries[0]).toMatchObject({
      line: 2,
      kindId: 'tap',
      site: {
        ...{ name: 'Bell cottage', houseNumber: '17a', street: 'Mill Lane', locality: 'Dunnock' },
        ...{ supply: 'mains', supplyFlow: 42.5, latitude: -34.5, longitude: 139.25 },
        people: [{ name: 'Ada Fell', role: '', phone: '+44 5' }],
        timeZone: 'Europe/Lisbon',
      },
    });
    expect(entries[1]).toMatchObject({
      kindId: 'wall',
      site: { name: 'Heron yard', houseNumber: null, people: [], supply: null },
    });
  });

  test('a bad cell is told by line and column, and nothing else of its row is left out', () => {
    const head = 'name;supply;supply_l_min;latitude;time_zone;number';
    const long = 'n'.repeat(41);
    expect(told(head, `X;river;0;95;Lisbon;${long}`)).toEqual([
      expect.stringMatching(/^2 time_zone: .*IANA/),
      expect.stringMatching(/^2 supply: .*"mains", "bore"/),
      expect.stringMatching(/^2 number: .*at most 40 characters/),
      expect.stringMatching(/^2 latitude: .*-90/),
      expect.stringMatching(/^2 supply_l_min: .*1,?000/),
    ]);
    expect(read(head, `X;river;0;95;Lisbon;${long}`).entries).toMatchObject([
      { site: { name: 'X', supply: null, supplyFlow: null, timeZone: 'Europe/Lisbon' } },
    ]);
  });

  test('a row without a name, or of an unknown kind, is left out whole', () => {
    const { entries, faults } = read('name;timer', ';Tap timer', 'Y;Dial', 'Z;TAP TIMER');
    expect(entries.map(({ site }) => site.name)).toEqual(['Z']);
    expect(faults.map(({ line, column }) => [line, column])).toEqual([
      [2, 'name'],
      [3, 'timer'],
    ]);
  });

  test('no names, unknown headings, too many rows', () => {
    expect(told('street', 'Mill Lane')).toEqual([
      expect.stringMatching(/^1 name: .*a column "name"/),
    ]);
    expect(told('name;colour', 'X;red')).toEqual([expect.stringMatching(/^1 colour: .*telephone/)]);
    const many = ['name', ...Array.from({ length: MOST_SITE_ROWS + 1 }, (_, i) => `House ${i}`)];
    expect(told(...many)).toEqual([expect.stringMatching(/^1 name: .*at most 5000 rows/)]);
    expect(read(...many).entries).toEqual([]);
  });
});
