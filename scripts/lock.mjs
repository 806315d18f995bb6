/** A lock on a data folder. Linux frees it with its holder, however that ends, so none is left over. */
import { createHash } from 'node:crypto';
import net from 'node:net';

/**
 * @param {string} folder
 * @returns {Promise<(() => void) | null>} releases the lock; null: someone has it
 */
export function takeLock(folder) {
  const name = createHash('sha256').update(folder).digest('hex').slice(0, 16);
  return new Promise((resolve, reject) => {
    const holder = net.createServer((connection) => connection.destroy());
    holder.once('error', (error) => {
      if (error.code === 'EADDRINUSE') resolve(null);
      else reject(error);
    });
    // An abstract socket, without a file: it disappears with the process.
    holder.listen(`\0water-clock-${name}`, () => {
      holder.unref();
      resolve(() => holder.close());
    });
  });
}
