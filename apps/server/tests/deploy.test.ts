/** The deployment files are valid, and their page names every setting. */
import fs from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { validate } from 'dockerfile-utils';
import { ROLES } from '../src/identity/person.entity.ts';
import { isAllowed, RIGHTS, type Right } from '../src/identity/rights.ts';
import { readSettings } from '../src/platform/settings.ts';

const ROOT = path.resolve(import.meta.dirname, '../../..');
const read = (file: string) => fs.readFileSync(path.join(ROOT, file), 'utf8');
const DATABASE_URL = 'postgres://localhost/clock';

/** Every variable the server reads. */
function lookedAt(): string[] {
  const names = new Set<string>();
  readSettings(
    new Proxy<Record<string, unknown>>(
      { DATABASE_URL },
      {
        get: (target, name) => {
          names.add(String(name));
          return target[String(name)];
        },
      },
    ),
  );
  return [...names].sort();
}

test('docs/operations.md names every setting and no other', () => {
  const table = read('docs/operations.md').split('## Settings')[1]?.split('\n## ')[0] ?? '';
  const named = [...table.matchAll(/^\| `(\w+)` \|/gm)].map(([, name = '']) => name);
  expect([...named].sort()).toEqual(lookedAt());
});

test('docs/people.md says who may do what, as the server has it', () => {
  const rows = [...read('docs/people.md').matchAll(/^\| `(\w+)` \| (.+) \|$/gm)];
  const told = rows.map(([, right = '', cells = '']) => [right, ...cells.split(' | ')]);
  expect(told).toEqual(
    Object.entries(RIGHTS).map(([right, { words }]) => [
      right,
      // Safe cast: the keys are those of the table.
      ...ROLES.map((role) => (isAllowed(role, right as Right) ? 'yes' : 'no')),
      words,
    ]),
  );
});

test('the Dockerfile has no fault, and what it copies is there', () => {
  const file = read('Dockerfile');
  expect(validate(file).map(({ message }) => message)).toEqual([]);
  const ignored = read('.dockerignore').trim().split('\n');
  for (const [, places = ''] of file.matchAll(/^COPY (?!--from)(.+) \S+$/gm))
    for (const place of places.split(' ')) {
      expect([place, fs.existsSync(path.join(ROOT, place))]).toEqual([place, true]);
      expect(ignored).not.toContain(place);
    }
  expect(validate('FORM node').length).toBeGreaterThan(0);
});

/** Sections of a unit file, each with its `Name=value` lines. */
function unitOf(text: string): Map<string, [string, string][]> {
  const sections = new Map<string, [string, string][]>();
  let lines: [string, string][] = [];
  for (const line of text.split('\n').filter((one) => one !== '' && !one.startsWith('#'))) {
    const head = /^\[(\w+)\]$/.exec(line)?.[1];
    if (head) sections.set(head, (lines = []));
    else {
      const parts = /^([A-Z]\w+)=(.+)$/.exec(line);
      if (!parts) throw new Error(`no line of a unit: ${line}`);
      lines.push([parts[1] ?? '', parts[2] ?? '']);
    }
  }
  return sections;
}

test('both start the same program, with settings that there are', () => {
  const unit = unitOf(read('deploy/water-clock.service'));
  expect([...unit.keys()]).toEqual(['Unit', 'Service', 'Install']);
  const service = unit.get('Service') ?? [];
  const one = (name: string) => service.find(([own]) => own === name)?.[1] ?? '';
  const program = one('ExecStart').split(' ').at(-1) ?? '';
  expect(program).toBe('apps/server/dist/main.js');
  expect(read('Dockerfile')).toContain(`CMD ["node", "${program}"]`);
  const source = program.replace('/dist/', '/src/').replace('.js', '.ts');
  expect(fs.existsSync(path.join(ROOT, source))).toBe(true);
  const allowed = new Set([...lookedAt(), 'NODE_ENV']);
  const set = [
    ...service.filter(([name]) => name === 'Environment').map(([, value]) => value),
    ...[...read('Dockerfile').matchAll(/^ENV (.+)$/gm)].map(([, value = '']) => value),
  ];
  expect(set.length).toBeGreaterThan(4);
  for (const value of set) expect(allowed).toContain(value.split('=')[0]);
  // The stop timeout must exceed the time the server takes to finish.
  expect(Number(one('TimeoutStopSec'))).toBeGreaterThan(
    readSettings({ DATABASE_URL }).drainSeconds,
  );
});

test('search engines are asked to keep nothing', () => {
  expect(read('apps/web/public/robots.txt')).toBe('User-agent: *\nDisallow: /\n');
  expect(read('apps/web/index.html')).toContain('<meta name="robots" content="noindex');
});
