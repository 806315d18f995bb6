/** bin/company: creates a company, or gives someone access again, from the server's command line. */
import { parseArgs } from 'node:util';
import { command, withDatabase, Wrong } from './our-database.mjs';
import { noted } from './running.mjs';
import { setUp } from './setup.mjs';

const HELP = `bin/company found NAME --owner NAME --email ADDRESS
    founds a company and prints a link, good for 48 hours, by which its owner chooses a password

bin/company link ADDRESS [--without-second-factor]
    prints such a link for somebody who cannot sign in

It works on the database of this folder, also while bin/start runs; with DATABASE_URL on that one.
WATER_CLOCK_URL=https://…  where people find the application, for the link
`;

async function main() {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      owner: { type: 'string' },
      email: { type: 'string' },
      'without-second-factor': { type: 'boolean', default: false },
      help: { type: 'boolean', default: false },
    },
  });
  const [act, subject, ...rest] = positionals;
  const isFounding = act === 'found' && values.owner && values.email;
  if (values.help || !subject || rest.length > 0 || (!isFounding && act !== 'link')) {
    process.stdout.write(HELP);
    if (!values.help) process.exitCode = 1;
    return;
  }
  setUp({ database: !process.env.DATABASE_URL });
  const { found, letIn } = await import('../apps/server/dist/company/command.js');
  await withDatabase({ alone: false }, async ({ url }) => {
    const { owner: name, email } = values;
    const dropsFactor = values['without-second-factor'];
    const place = isFounding
      ? await found(url, { company: subject, name, email }).catch((error) => {
          throw error.code === 'address-taken' ? new Wrong(error.message) : error;
        })
      : await letIn(url, subject, { dropsFactor });
    if (place === null) throw new Wrong(`there is no account of ${subject}`);
    const base = process.env.WATER_CLOCK_URL ?? noted().url ?? 'http://localhost:8420';
    process.stdout.write(`${base.replace(/\/$/, '')}${place}\n`);
  });
}

await command(main);
