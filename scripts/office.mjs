/** A large invented company with thousands of gardens, visits and changes, for trying out the application. */
import { createHash } from 'node:crypto';

export const OFFICE = {
  companyId: '0ff1ce00-0000-4000-8000-000000000001',
  name: 'Coppermarsh Garden Watering',
  password: 'water-for-thousands',
  sites: 5_000,
  timers: 6_000,
  visits: 20_000,
  changes: 1_000_000,
  technicians: 10,
};

const FIRST =
  'Alder Birch Cinder Dapple Ember Fallow Grebe Hazel Ivory Juniper Kestrel Linnet'.split(' ');
const SECOND = 'Acre Bank Corner Dell End Fold Gate House Lodge Mews Nook Row'.split(' ');
const STREETS = 'Marl Tansy Rill Thrift Sedge Quern Plover Osier Nettle Madder Larch Kiln'.split(
  ' ',
);
const TOWNS =
  'Brackenthorpe Cobblewick Dunmarrow Eskerley Fennholt Garrowby Hobsford Inchmere'.split(' ');
const NAMES =
  'Ansel Briony Corin Delphine Edda Farran Greta Hollis Isolde Joss Kerensa Lowen'.split(' ');
const SURNAMES =
  'Ashdown Bellwether Crake Dunnage Everdell Furze Gorse Hathersage Ingle Jessop'.split(' ');
const DAY_SECONDS = 86_400;

/** An id that is the same each time. */
export const idOf = (kind, n) => {
  const hex = createHash('sha256').update(`${kind} ${n}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
};

/** Repeats only after all combinations. */
const pick = (list, n, stride = 1) => list[Math.floor(n / stride) % list.length];

const clockText = (seconds) => {
  const minutes = Math.floor((seconds % DAY_SECONDS) / 60);
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
};

/** A plan with its starts shifted, so that no two gardens are quite alike. */
function shifted(plan, steps) {
  const by = steps * (plan.timer.startStepMinutes ?? 1) * 60;
  const later = (start) => {
    if (typeof start !== 'string') return start;
    const [hours, minutes] = start.split(':').map(Number);
    return clockText(hours * 3600 + minutes * 60 + by);
  };
  return {
    ...plan,
    programs: plan.programs.map((program) => ({ ...program, starts: program.starts.map(later) })),
  };
}

/** Rows of a table, in batches: one statement each. */
async function insert(client, table, columns, rows) {
  const PART = 500;
  for (let at = 0; at < rows.length; at += PART) {
    const part = rows.slice(at, at + PART);
    const names = Object.keys(columns);
    const lists = names.map((name) => part.map((row) => row[name]));
    const values = names.map((name, i) => `$${i + 1}::${columns[name]}[]`).join(', ');
    await client.query(
      `insert into ${table} (${names.join(', ')}) select * from unnest(${values})`,
      lists,
    );
  }
}

/**
 * @param {string} url of a database with tables
 * @param {(text: string) => void} say
 */
export async function seedOffice(url, say, size = OFFICE) {
  const [{ default: pg }, { demoSites, demoLibrary }, { hashPassword }, { readPlan }] =
    await Promise.all([
      import('pg'),
      import('../apps/server/dist/demo/demo-documents.js'),
      import('../apps/server/dist/auth/session.service.js'),
      import('@water-clock/core'),
    ]);
  const today = Math.floor(Date.now() / (DAY_SECONDS * 1000));
  const demo = demoSites(today);
  const library = demoLibrary(today);
  const rules = library.filter(({ shelf }) => shelf === 'rules');
  const companyId = size.companyId;
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query('begin');
    const there = await client.query('select from companies where id = $1', [companyId]);
    if (there.rowCount > 0) throw new Error('the office is there already');
    await client.query('insert into companies (id, name) values ($1, $2)', [companyId, size.name]);
    const passwordHash = await hashPassword(size.password);
    const people = Array.from({ length: size.technicians + 1 }, (_, n) => ({
      company_id: companyId,
      id: idOf('person', n),
      name: `${pick(NAMES, n)} ${pick(SURNAMES, n)}`,
      email: n === 0 ? 'owner@coppermarsh.example' : `technician${n}@coppermarsh.example`,
      role: n === 0 ? 'owner' : 'technician',
      password_hash: passwordHash,
    }));
    const text = 'text';
    await insert(
      client,
      'people',
      { company_id: 'uuid', id: 'uuid', name: text, email: text, role: text, password_hash: text },
      people,
    );
    await insert(
      client,
      'library',
      { company_id: 'uuid', id: 'uuid', shelf: text, version: 'integer', document: 'jsonb' },
      library.map(({ shelf, id, document }) => ({
        ...{ company_id: companyId, id, shelf, version: 1 },
        document: JSON.stringify(document),
      })),
    );
    say(`${size.sites} sites …`);
    const sites = Array.from({ length: size.sites }, (_, n) => ({
      company_id: companyId,
      id: idOf('site', n),
      version: 1,
      name: `${pick(FIRST, n)} ${pick(SECOND, n, FIRST.length)} ${n + 1}`,
      house_number: String((n % 180) + 1),
      street: `${pick(STREETS, n, 7)} Street`,
      locality: pick(TOWNS, n, 31),
      time_zone: 'Australia/Adelaide',
      latitude: -34 - ((n * 7919) % 1000) / 2000,
      longitude: 138 + ((n * 104_729) % 1000) / 1000,
      supply: demo[n % demo.length].site.supply ?? null,
      town: demo[n % demo.length].site.town ?? null,
      rules_id: rules[n % (rules.length + 1)]?.id ?? null,
      person_id: people[1 + (n % size.technicians)].id,
      people: JSON.stringify([
        {
          name: `${pick(NAMES, n, 3)} ${pick(SURNAMES, n, 5)}`,
          role: 'owner',
          phone: `555-${String(n).padStart(4, '0')}`,
        },
      ]),
    }));
    const float = 'double precision';
    await insert(
      client,
      'sites',
      {
        ...{ company_id: 'uuid', id: 'uuid', version: 'integer', name: text, house_number: text },
        ...{
          street: text,
          locality: text,
          time_zone: text,
          latitude: float,
          longitude: float,
          supply: text,
        },
        ...{ town: text, rules_id: 'uuid', person_id: 'uuid', people: 'jsonb' },
      },
      sites,
    );
    say(`${size.timers} timers …`);
    const versions = Math.ceil(size.changes / size.timers);
    const timers = Array.from({ length: size.timers }, (_, n) => {
      const { plan, survey } = demo[n % demo.length];
      const moved = shifted(plan, Math.floor(n / demo.length) % 24);
      const at = n % size.sites;
      const own = {
        ...survey,
        stations: survey.stations.map((one) => ({ ...one, decoder: `D${n}-${one.number}` })),
      };
      return {
        company_id: companyId,
        id: idOf('timer', n),
        site_id: sites[at].id,
        name: n < size.sites ? '' : 'Shed',
        version: versions + 1,
        plan: JSON.stringify(readPlan(moved).ok ? moved : plan),
        survey: JSON.stringify(own),
      };
    });
    await insert(
      client,
      'timers',
      {
        ...{ company_id: 'uuid', id: 'uuid', site_id: 'uuid', name: text, version: 'integer' },
        ...{ plan: 'jsonb', survey: 'jsonb' },
      },
      timers,
    );
    say(`${size.visits} visits …`);
    const visits = demo.flatMap((one) => one.visits);
    await client.query(
      `insert into visits (company_id, id, timer_id, person_id, began, document)
       select $1, gen_random_uuid(), ($2::uuid[])[1 + n % $3], ($4::uuid[])[1 + n % $5], at,
         jsonb_set(($6::jsonb[])[1 + n % $7], '{began}', to_jsonb(to_char(at, 'YYYY-MM-DD"T"HH24:MI')))
       from (select n, date_trunc('minute', localtimestamp - make_interval(days => 1 + n % 1000, mins => n % 600)) as at
             from generate_series(0, $8::int - 1) as n) as many`,
      [
        companyId,
        timers.map(({ id }) => id),
        timers.length,
        people.slice(1).map(({ id }) => id),
        size.technicians,
        visits.map((visit) => JSON.stringify(visit)),
        visits.length,
        size.visits,
      ],
    );
    say(`${size.changes} changes …`);
    const change = JSON.stringify({ type: 'note', fields: {} });
    await client.query(
      `insert into changes (company_id, id, subject, subject_id, version, person_id, way, fingerprint, change, inverse, at)
       select $1, gen_random_uuid(), 'timer', ($2::uuid[])[1 + n % $3], 2 + n / $3, ($4::uuid[])[1 + n % $5], 'do',
         md5(n::text), $6::jsonb, $6::jsonb, now() - make_interval(mins => $7::int - n)
       from generate_series(0, $7::int - 1) as n`,
      [
        ...[
          companyId,
          timers.map(({ id }) => id),
          timers.length,
          people.slice(1).map(({ id }) => id),
        ],
        ...[size.technicians, change, size.changes],
      ],
    );
    await client.query('commit');
    await client.query('vacuum analyze');
  } finally {
    await client.end();
  }
}
