/** Jest transformer for bundled tests: the code unchanged, with its source map, so that a failure names the source line. */
import fs from 'node:fs';

const mapOf = (file) =>
  fs.existsSync(`${file}.map`) ? fs.readFileSync(`${file}.map`, 'utf8') : null;

export default {
  process: (code, file) => ({ code, map: mapOf(file) }),
};
