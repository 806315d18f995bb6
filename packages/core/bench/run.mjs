/**
 * `npm run bench -w packages/core`: how long a check takes, beside the slow reference model in the same run. Prints a table
 * in Markdown; docs/benchmarks.md holds one, with the machine it was made on.
 */
import { registerHooks } from 'node:module';
import { performance } from 'node:perf_hooks';

void registerHooks;
