/**
 * `npm run seed:office`: puts a company of 5,000 gardens into this folder's database, or the one in DATABASE_URL, and says how to sign in.
 * Start the application once before, so that the tables exist.
 */
import { OFFICE, seedOffice } from './office.mjs';
import { command, withDatabase } from './our-database.mjs';
import { setUp } from './setup.mjs';

await command(async () => {
  setUp({ database: !process.env.DATABASE_URL });
  await withDatabase({ alone: false }, async ({ url }) => {
    await seedOffice(url, (text) => process.stderr.write(`${text}\n`));
  });
  process.stdout.write(
    `Sign in as owner@coppermarsh.example or technician1@coppermarsh.example, password ${OFFICE.password}\n`,
  );
});
