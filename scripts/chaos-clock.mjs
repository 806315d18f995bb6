/** Loaded into a server under test: shifts its clock by the milliseconds in the file that CHAOS_CLOCK names. */
import fs from 'node:fs';

const file = process.env.CHAOS_CLOCK;
let offset = 0;
const look = () => {
  offset = Number(fs.readFileSync(file, 'utf8'));
};
look();
fs.watchFile(file, { interval: 20 }, look).unref();

const Real = Date;
globalThis.Date = class extends Real {
  constructor(...parts) {
    if (parts.length === 0) super(Real.now() + offset);
    else super(...parts);
  }

  static now() {
    return Real.now() + offset;
  }
};
