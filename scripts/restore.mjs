/** bin/restore: restores a backup from bin/backup. */
import fs from 'node:fs';
import {
  command,
  DATABASE,
  isReadable,
  postgresTool,
  prepare,
  withDatabase,
  Wrong,
} from './our-database.mjs';
import { say } from './setup.mjs';

const HELP = `bin/restore FILE [--replace]: brings back what bin/backup wrote into FILE

Stop Water Clock first. The database must be empty. With --replace one that holds data is put aside under another name, and kept.
With DATABASE_URL it restores into that database, which must be empty; else into the one of this folder.
`;

const query = async (url, sql) => {
  const { default: pg } = await import('pg');
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(sql)).rows;
  } finally {
    await client.end();
  }
};

async function isEmpty(url) {
  const [{ count }] = await query(
    url,
    `select count(*)::int as count from pg_tables where schemaname = 'public'`,
  );
  return count === 0;
}

/** Renames the current database with a timestamp, and creates an empty one in its place. */
async function putAside(admin) {
  const now = new Date().toISOString().replace(/\D/g, '').slice(0, 14);
  const name = `${DATABASE}_before_${now}`;
  await query(admin, `alter database ${DATABASE} rename to ${name}`);
  await query(admin, `create database ${DATABASE}`);
  return name;
}

await command(async () => {
  const args = process.argv.slice(2);
  const replace = args.includes('--replace');
  const [file, ...rest] = args.filter((one) => one !== '--replace');
  if (file === '--help' || !file || rest.length > 0) {
    process.stdout.write(HELP);
    if (file !== '--help') process.exitCode = 1;
    return;
  }
  if (!fs.existsSync(file)) throw new Wrong(`there is no file ${file}`);
  prepare();
  if (!isReadable(file)) throw new Wrong(`${file} is not a backup, or it is damaged`);
  await withDatabase({ alone: true }, async ({ url, admin }) => {
    if (!(await isEmpty(url))) {
      if (!replace || !admin)
        throw new Wrong(
          admin
            ? 'the database holds data; with --replace it is put aside and kept'
            : 'the database of DATABASE_URL holds data; name an empty one',
        );
      say(`What was there is kept as the database ${await putAside(admin)}.`);
    }
    // All of it, or nothing.
    postgresTool('pg_restore', url, [
      '--single-transaction',
      '--exit-on-error',
      '--no-owner',
      '--no-privileges',
      file,
    ]);
  });
  say(`Restored from ${file}. Start Water Clock again with bin/start.`);
});
