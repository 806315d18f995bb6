/** Serials pasted in station order: all are assigned, or none with the reason. */
import { expect, test } from '@jest/globals';
import { readSerialList } from '@water-clock/core';

const STATIONS = [1, 2, 3];
const before = new Map([
  [1, '100'],
  [3, '300'],
]);
const read = (text: string) => readSerialList(text, STATIONS, before);

test('the n-th serial is for the n-th station, and replaces what is there', () => {
  const list = read('101, 200');
  expect(list).toEqual({
    ok: true,
    assigned: new Map([
      [1, '101'],
      [2, '200'],
    ]),
    replaced: [1],
  });
  // Two decoders may change places.
  expect(read('300\n200\n100')).toMatchObject({ ok: true, replaced: [1, 3] });
  expect(read('100')).toMatchObject({ ok: true, replaced: [] });
  expect(read(' ')).toMatchObject({ ok: true, replaced: [] });
});

test.each([
  ['101, wet', '“wet” is not a serial number. Use digits only, separated by commas.'],
  [
    '101 12345678901',
    '“12345678901” is not a serial number. Use digits only, separated by commas.',
  ],
  ['1 2 3 4', 'The list has more serial numbers than the 3 stations in use. Delete the rest.'],
  ['101 200 101', '101 is in the list twice.'],
  ['300 200', 'Station 3 has 300, which is in the list.'],
])('%s is refused: %s', (text, why) => {
  expect(read(text)).toEqual({ ok: false, why });
});
