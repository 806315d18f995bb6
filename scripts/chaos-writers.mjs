/**
 * Writers that behave like clients: each change is sent under its own id until its outcome is known. What they were told is compared with
 * the database.
 */
import { randomUUID } from 'node:crypto';
import { sleep } from './processes.mjs';

/** Timers of the demo sites. */
const TIMERS = ['6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01', '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02'];
const PEOPLE = [
  { email: 'tamsin@brindlewick.example', password: 'sprinkle-by-night' },
  { email: 'jory@brindlewick.example', password: 'soak-before-sunrise' },
];
const PATIENCE_MS = 15_000;
const AGAIN_MS = 50;

/** An answer of our API, or null: outcome not known. */
async function ask(url, init) {
  try {
    const response = await fetch(url, { ...init, signal: AbortSignal.timeout(PATIENCE_MS) });
    const body = response.status === 204 ? {} : await response.json();
    if (!response.headers.has('water-clock-api') || response.status >= 500) return null;
    return { status: response.status, body, headers: response.headers };
  } catch {
    return null;
  }
}

/** Asks until there is an answer. */
async function answered(urls, path, init, isOver = () => false) {
  for (let n = 0; !isOver(); n++) {
    const answer = await ask(`${urls()[n % urls().length]}${path}`, init);
    if (answer) return answer;
    await sleep(AGAIN_MS);
  }
  return null;
}

async function signIn(urls, person) {
  const body = JSON.stringify(person);
  const headers = { 'content-type': 'application/json' };
  const answer = await answered(urls, '/api/session', { method: 'POST', headers, body });
  if (answer?.status !== 204) throw new Error(`nobody gets in: ${JSON.stringify(answer?.body)}`);
  return answer.headers.getSetCookie()[0].split(';')[0];
}

export class Writers {
  /** Every write sent: its id, its timer, and the outcome: a version, a code, or null. */
  sent = [];
  #over = false;
  #acknowledged = 0;
  /** Waiters for a number of acknowledged writes. */
  #waiting = [];
  #work;

  /** @param {() => readonly string[]} urls of the servers, now @param {number} count @param {{ timers?: number }} on */
  constructor(urls, count, { timers = TIMERS.length } = {}) {
    this.#work = Array.from({ length: count }, (_, i) =>
      // Each starts with a different server, and goes to the next if there is no answer.
      this.#write(() => [...urls().slice(i % urls().length), ...urls()], TIMERS[i % timers], i),
    );
  }

  async #write(urls, timer, i) {
    const cookie = await signIn(urls, PEOPLE[i % PEOPLE.length]);
    const path = `/api/timers/${timer}`;
    const headers = { 'content-type': 'application/json', cookie };
    const now = await answered(urls, `${path}/version`, { headers });
    let version = now.body.version;
    for (let n = 0; !this.#over; n++) {
      const write = { id: randomUUID(), timer, told: null };
      this.sent.push(write);
      const change = { type: 'note-station', station: 1, fields: { note: `writer ${i}, ${n}` } };
      const body = JSON.stringify({ id: write.id, baseVersion: version, way: 'do', change });
      const init = { method: 'POST', headers, body };
      // Even at the end each waits for its answer, as a device does.
      const answer = await answered(urls, `${path}/changes`, init);
      write.told = answer.status === 200 ? answer.body.version : answer.body.code;
      if (answer.status === 200) this.#count();
      version =
        answer.status === 200 ? answer.body.version : (answer.body.current?.version ?? version);
    }
  }

  #count() {
    this.#acknowledged++;
    this.#waiting = this.#waiting.filter(({ count, resolve }) => {
      if (this.#acknowledged < count) return true;
      resolve();
      return false;
    });
  }

  /** Resolves when this many more writes have been acknowledged. */
  acknowledge(more) {
    return new Promise((resolve) =>
      this.#waiting.push({ count: this.#acknowledged + more, resolve }),
    );
  }

  get acknowledged() {
    return this.sent.filter(({ told }) => typeof told === 'number');
  }

  async stop() {
    this.#over = true;
    await Promise.all(this.#work);
  }
}

/**
 * Compares what was told with what is there.
 *
 * @param {(sql: string) => Promise<Record<string, any>[]>} query
 */
export async function compare(writers, query) {
  const rows = await query(
    `select id, subject_id, version from changes where subject = 'timer' order by subject_id, version`,
  );
  const timers = await query('select id, version from timers');
  const byId = new Map(rows.map((row) => [row.id, row]));
  const lost = writers.acknowledged.filter(({ id }) => !byId.has(id)).length;
  const toldWrongly = writers.sent.filter(({ id, told }) => {
    const row = byId.get(id);
    return row ? row.version !== told : typeof told === 'number';
  }).length;
  const versions = new Map();
  for (const { subject_id: timer, version } of rows)
    versions.set(timer, [...(versions.get(timer) ?? []), version]);
  let gaps = 0;
  let doubled = 0;
  for (const { id, version } of timers) {
    const own = versions.get(id) ?? [];
    doubled += own.length - new Set(own).size;
    // Every version but the first was made by one change.
    if (own.length !== version - 1 || own.some((one, i) => one !== i + 2)) gaps++;
  }
  return {
    sent: writers.sent.length,
    acknowledged: writers.acknowledged.length,
    lost,
    doubled,
    gaps,
    toldWrongly,
  };
}
