/** bin/backup: all of Water Clock's data, including photos, in one file in PostgreSQL's own format. */
import fs from 'node:fs';
import path from 'node:path';
import {
  command,
  isReadable,
  postgresTool,
  prepare,
  withDatabase,
  Wrong,
} from './our-database.mjs';
import { say } from './setup.mjs';

const HELP = `bin/backup FILE: writes everything that Water Clock keeps, photos included, into FILE

It may run at any time, also while people work: the file holds all as it was at one moment. A file that is there already is never
overwritten. With DATABASE_URL it backs up that database, else the one of this folder. bin/restore FILE brings it back.
`;

/** The database is found as in bin/start. The job queue is left out: every server creates its own. */
const DUMP = ['--format=custom', '--no-owner', '--no-privileges', '--exclude-schema=pgboss'];

await command(async () => {
  const [file, ...rest] = process.argv.slice(2);
  if (file === '--help' || !file || rest.length > 0) {
    process.stdout.write(HELP);
    if (file !== '--help') process.exitCode = 1;
    return;
  }
  if (fs.existsSync(file)) throw new Wrong(`${file} is there already; name another file`);
  if (!fs.existsSync(path.dirname(path.resolve(file))))
    throw new Wrong(`there is no folder ${path.dirname(file)}`);
  prepare();
  const part = `${file}.part`;
  await withDatabase({ alone: false }, async ({ url }) => {
    try {
      // Readable by the owner only: it contains names and phone numbers.
      fs.closeSync(fs.openSync(part, 'w', 0o600));
      postgresTool('pg_dump', url, [...DUMP, `--file=${part}`]);
      if (!isReadable(part)) throw new Wrong('what was written cannot be read; no backup was made');
      fs.linkSync(part, file);
    } finally {
      fs.rmSync(part, { force: true });
    }
  });
  const { size } = fs.statSync(file);
  say(`Backed up into ${file} (${size.toLocaleString('en')} bytes). Keep it on another machine.`);
});
