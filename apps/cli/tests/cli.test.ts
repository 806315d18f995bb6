/** Runs the command line as a process and checks both outputs and the exit code. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import type { Plan } from '@water-clock/core';

const root = path.resolve(import.meta.dirname, '../../..');
const examples = 'docs/spec/examples';
const call = (args: string[], input = '') => {
  const { status, stdout, stderr } = spawnSync('bin/water-clock', args, {
    cwd: root,
    input,
    encoding: 'utf8',
  });
  return { status, stdout, stderr };
};

test('simulate prints an example to the letter, from a file and from standard input', () => {
  const expected = readFileSync(
    path.join(root, examples, 'percent-by-month.simulate.json'),
    'utf8',
  );
  const { from, days } = JSON.parse(expected) as { from: string; days: number };
  const file = `${examples}/percent-by-month.plan.json`;
  const options = ['--from', from, '--days', String(days)];
  const printed = call(['simulate', file, ...options]);
  expect(printed).toEqual({ status: 0, stdout: expected.trimEnd() + '\n', stderr: '' });
  const text = readFileSync(path.join(root, file), 'utf8');
  expect(call(['simulate', '-', ...options], `\uFEFF${text}`)).toEqual(printed);
});

test('a refused document gives a line for each fault, nothing on standard output, and 1', () => {
  const broken = '{ "format": "water-clock-plan", "version": 1, "timer": 3, "extra": 1 }';
  const { status, stdout, stderr } = call(['check', '-', '--on', '2027-03-01'], broken);
  expect([status, stdout]).toEqual([1, '']);
  const lines = stderr.trimEnd().split('\n');
  expect(lines.map((line) => line.split(':')[0])).toEqual([
    'extra',
    'timer',
    'settings',
    'stations',
    'programs',
  ]);
});

test('a sound document that would take too long is refused by the runs that ask for it', () => {
  const plan = JSON.parse(
    readFileSync(path.join(root, examples, 'one-start.plan.json'), 'utf8'),
  ) as Plan;
  const absurd = {
    ...plan,
    timer: { ...plan.timer, cycleSoak: 'station', inWindow: 'pause' },
    settings: { noWaterWindows: [{ from: '10:00', to: '18:00' }] },
    stations: [{ number: 1, cycleSeconds: 1, soakSeconds: 1 }],
    programs: plan.programs.map((program) => ({
      ...program,
      starts: ['04:00', '05:00'],
      runs: [{ station: 1, seconds: 86_400 }],
    })),
  };
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'water-clock-')), 'absurd.plan.json');
  writeFileSync(file, JSON.stringify(absurd));
  const { status, stdout, stderr } = call(['check', file, '--on', '2027-03-01']);
  expect([status, stdout]).toEqual([1, '']);
  expect(stderr).toMatch(/^programs\[0\]\.runs: this would take too long to calculate/);
});

test('several documents give JSON Lines in their order, refused ones among them, and 1 at the end', () => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'water-clock-')), 'not.plan.json');
  writeFileSync(file, 'water');
  const good = `${examples}/one-start.plan.json`;
  const { status, stdout, stderr } = call(['check', good, file, good, '--on', '2027-03-01']);
  expect([status, stderr]).toEqual([1, '']);
  const lines = stdout
    .trimEnd()
    .split('\n')
    .map((line) => JSON.parse(line) as object);
  expect(lines).toMatchObject([
    { file: good, verdict: 'clear' },
    { file, refused: [expect.stringMatching(/^document: this is not JSON/)] },
    { file: good, headroomPercent: 150 },
  ]);
  expect(Object.keys(lines[0] ?? {})[0]).toBe('file');
});

const good = `${examples}/one-start.plan.json`;
const wrong: [string, string[], RegExp][] = [
  ['no command', [], /check, explain, plan, repair, season or simulate/],
  [
    'an unknown command',
    ['water', good],
    /allowed: check, explain, plan, repair, season, simulate/,
  ],
  ['no file', ['check', '--on', '2027-03-01'], /needs a PLAN/],
  [
    'a file that is not there',
    ['check', good, 'nowhere.json', '--on', '2027-03-01'],
    /nowhere\.json: cannot be read/,
  ],
  ['no date', ['check', good], /--on is missing/],
  ['a date that does not exist', ['check', good, '--on', '2027-02-30'], /not a date/],
  [
    'an option of the other command',
    ['check', good, '--on', '2027-03-01', '--days', '3'],
    /--days does not go with check/,
  ],
  ['no days', ['simulate', good, '--from', '2027-03-01', '--days', '0'], /1 to 3660/],
  ['an unknown option', ['check', good, '--when', 'now'], /--when/],
];
test.each(wrong)('a wrong call, %s, gives 2 and a sentence', (_name, args, message) => {
  const { status, stdout, stderr } = call(args);
  expect([status, stdout]).toEqual([2, '']);
  expect(stderr).toMatch(message);
});

test('plan prints a plan that check finds nothing wrong with, and gives 3 where there is none', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'plan-'));
  const write = (name: string, document: unknown) => {
    const file = path.join(folder, name);
    writeFileSync(file, JSON.stringify(document));
    return file;
  };
  const { timer } = JSON.parse(readFileSync(good, 'utf8')) as { timer: object };
  const brief = {
    format: 'water-clock-brief',
    version: 1,
    timer,
    stations: [{ number: 1, weeklySeconds: 3600, days: { least: 2, most: 3 } }],
    rules: { mostDaysPerWeek: 3 },
  };
  const wanted = write('wanted.brief.json', brief);
  const planned = call(['plan', wanted]);
  expect(planned.status).toBe(0);
  const { plan, cost } = JSON.parse(planned.stdout) as { plan: object; cost: number[] };
  expect(cost.slice(0, 5)).toEqual([0, 0, 0, 1, 1]);
  const checked = call([
    'check',
    write('planned.plan.json', plan),
    '--on',
    '2027-03-01',
    '--brief',
    wanted,
  ]);
  expect(JSON.parse(checked.stdout)).toMatchObject({ verdict: 'clear', findings: [] });

  const tooMuch = write('none.brief.json', { ...brief, rules: { mostDaysPerWeek: 1 } });
  const none = call(['plan', tooMuch]);
  expect(none.status).toBe(3);
  expect(JSON.parse(none.stdout)).toMatchObject({
    plan: null,
    report: { conflicts: [{ path: 'rules.mostDaysPerWeek' }, { path: 'stations[0].days' }] },
  });
  expect(call(['plan', good]).stderr).toMatch(/format: /);
});

test('simulate takes events, from a file or from standard input, and refuses them by path', () => {
  const expected = readFileSync(path.join(root, examples, 'events-rain.simulate.json'), 'utf8');
  const plan = `${examples}/events-rain.plan.json`;
  const options = ['--from', '2027-03-01', '--days', '4', '--events'];
  const printed = call(['simulate', plan, ...options, `${examples}/events-rain.events.json`]);
  expect(printed).toEqual({ status: 0, stdout: expected.trimEnd() + '\n', stderr: '' });
  const late =
    '{"format":"water-clock-events","version":1,"events":[{"at":"2027-03-05T00:00:00","do":"wet"}]}';
  const refused = call(['simulate', plan, ...options, '-'], late);
  expect([refused.status, refused.stdout]).toEqual([1, '']);
  expect(refused.stderr).toBe(
    'events[0].at: this moment is outside the simulation; allowed: 2027-03-01T00:00:00 to 2027-03-04T23:59:59\n',
  );
  expect(call(['check', plan, '--on', '2027-03-01', '--events', '-']).status).toBe(2);
});

test('explain says what may be behind what was seen, the likeliest first', () => {
  const document = {
    format: 'water-clock-sightings',
    version: 1,
    sightings: [
      { saw: 'ran', from: '2027-07-06T16:30', station: 1 },
      { saw: 'dry', from: '2027-07-07T04:00', to: '2027-07-07T09:00', station: 1 },
    ],
  };
  const plan = `${examples}/one-start.plan.json`;
  const { status, stdout } = call(['explain', plan, '-'], JSON.stringify(document));
  expect(status).toBe(0);
  const { explanations } = JSON.parse(stdout) as {
    explanations: { sentence: string; cost: number; fits: string[] }[];
  };
  // The plan waters at 4:00, so either its clock is 12.5 hours off or the start time is.
  expect(explanations[0]).toMatchObject({ cost: 0, fits: ['fits', 'fits'] });
  expect(explanations.map(({ cost }) => cost)).toEqual(
    explanations.map(({ cost }) => cost).sort((a, b) => a - b),
  );
  const broken = { ...document, sightings: [{ saw: 'heard', from: 'noon' }] };
  const refused = call(['explain', plan, '-'], JSON.stringify(broken));
  expect([refused.status, refused.stdout]).toEqual([1, '']);
  expect(refused.stderr.split('\n').map((line) => line.split(':')[0])).toEqual([
    'sightings[0].saw',
    'sightings[0].from',
    '',
  ]);
  expect(call(['explain', plan]).status).toBe(2);
});

test('--help teaches the commands', () => {
  const { status, stdout } = call(['--help']);
  expect(status).toBe(0);
  for (const word of [
    'water-clock check',
    'water-clock simulate',
    'water-clock plan',
    '--days N',
    'Exit code',
    '1 to 3660',
  ])
    expect(stdout).toContain(word);
});

test('repair prints the fewest settings, and gives 3 where there is no repair', () => {
  const plan = `${examples}/one-start.plan.json`;
  const { timer, stations } = JSON.parse(readFileSync(path.join(root, plan), 'utf8')) as Plan;
  const briefWith = (rules: object) =>
    JSON.stringify({
      format: 'water-clock-brief',
      version: 1,
      timer,
      stations: stations.map(({ number }) => ({ number, weeklySeconds: 0 })),
      rules,
    });
  const repaired = (rules: object) =>
    call(['repair', plan, '-', '--on', '2027-03-01'], briefWith(rules));
  const { status, stdout } = repaired({});
  expect(status).toBe(0);
  expect(JSON.parse(stdout)).toMatchObject({ changes: [], cost: [0, 0, 0, 0, 0] });
  const banned = repaired({ weekdays: [] });
  expect([banned.status, JSON.parse(banned.stdout)]).toMatchObject([3, { plan: null }]);
  expect(call(['repair', plan]).stderr).toMatch(/needs a PLAN and a BRIEF/);
  expect(repaired({ weekday: [] }).stderr).toMatch(/^rules\.weekday: /);
});

test('season prints an example to the letter', () => {
  const name = `${examples}/season-lawn`;
  const expected: unknown = JSON.parse(
    readFileSync(path.join(root, `${name}.season.json`), 'utf8'),
  );
  const files = [`${name}.plan.json`, `${name}.garden.json`];
  const { status, stdout } = call(['season', ...files, '--daily', '1']);
  expect([status, JSON.parse(stdout)]).toEqual([0, expected]);
  expect(call(['season', ...files, '--daily', '0']).stderr).toMatch(/--daily 0: allowed: /);
  expect(call(['plan', files[0] ?? '', '--daily', '1']).stderr).toMatch(/--daily does not go with/);
});

test('check is told of the supply and the pump, and refuses what neither can be', () => {
  const plan = JSON.parse(
    readFileSync(path.join(root, examples, 'one-start.plan.json'), 'utf8'),
  ) as Plan;
  const two: Plan = {
    ...plan,
    timer: { ...plan.timer, stationCount: 2, stationsAtOnce: 2 },
    settings: { stationsAtOnce: 2, stationDelaySeconds: 0 },
    stations: [1, 2].map((number) => ({ number, flowLpm: 33 })),
    programs: plan.programs.map((program) => ({
      ...program,
      runs: [1, 2].map((station) => ({ station, seconds: 600 })),
    })),
  };
  const water = (...options: string[]) => {
    const delayed = { ...two, settings: { stationsAtOnce: 1, stationDelaySeconds: 60 } };
    const given = options.includes('--pump') ? delayed : two;
    const { status, stdout } = call(
      ['check', '-', '--on', '2027-03-01', ...options],
      JSON.stringify(given),
    );
    const { findings } = JSON.parse(stdout) as { findings: { code: string; message: string }[] };
    return [status, ...findings.flatMap(({ code }) => (/supply|pump/.test(code) ? [code] : []))];
  };
  expect(water('--supply', '40')).toEqual([0, 'supply']);
  expect(water('--supply', '66')).toEqual([0]);
  expect(water('--pump', 'unknown')).toEqual([0, 'pump-shut']);
  expect(water('--pump', 'stops')).toEqual([0]);
  for (const [option, value] of [
    ['--supply', '0'],
    ['--supply', 'much'],
    ['--pump', 'maybe'],
  ] as const) {
    const { status, stderr } = call([
      ...['check', `${examples}/one-start.plan.json`, '--on', '2027-03-01', option, value],
    ]);
    expect([status, stderr]).toEqual([2, expect.stringContaining(`${option} ${value}: allowed:`)]);
  }
  const { status, stderr } = call(['plan', 'x.brief.json', '--supply', '40']);
  expect([status, stderr]).toEqual([2, expect.stringContaining('does not go with plan')]);
});
