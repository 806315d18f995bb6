/** One at a time for a folder of data. Linux frees the lock with its holder, however that ends, so none is ever left over. */
import { createHash } from 'node:crypto';
import net from 'node:net';

/** @param {string} folder @returns {Promise<(() => void) | null>} lets go of the lock; null: somebody has it */
export function takeLock(folder) {
  const name = createHash('sha256').update(folder).digest('hex').slice(0, 16);
  return new Promise((resolve, reject) => {
    const holder = net.createServer((connection) => connection.destroy());
    holder.once('error', (error) => {
      if (error.code === 'EADDRINUSE') resolve(null);
      else reject(error);
    });
    // A socket without a file (an abstract one): it is gone with the process.
    holder.listen(`\0water-clock-${name}`, () => {
      holder.unref();
      resolve(() => holder.close());
    });
  });
}
