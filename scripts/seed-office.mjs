/**
 * `npm run seed:office`: puts a company of 5,000 gardens into the database of this folder, or into that of DATABASE_URL, and says how to sign
 * in. Start the application once before, so that its tables are there.
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
