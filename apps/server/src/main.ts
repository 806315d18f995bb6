import { createApplication } from './application.ts';
import { readSettings } from './platform/settings.ts';

const settings = readSettings(process.env);
const app = await createApplication(settings);
await app.listen(settings.port, settings.host);
// bin/start waits for this line to learn the port.
process.stdout.write(`listening ${await app.getUrl()}\n`);
