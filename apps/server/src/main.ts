import { createApplication } from './application.ts';
import { readConfig } from './platform/config.ts';

const config = readConfig();
const app = await createApplication(config);
await app.listen(config.port, config.host);
// bin/start waits for this line to learn the port.
process.stdout.write(`listening ${await app.getUrl()}\n`);
