import { proxy, wrap, type Remote } from 'comlink';

/** A running worker: its functions can be called as if they were here, and it can be ended in the middle of its work. */
export interface Started<T> {
  readonly call: Remote<T>;
  readonly end: () => void;
}

/** How the functions of a worker are called from here. Tests answer in its place. */
export const connection = { to: <T>(worker: Worker): Remote<T> => wrap<T>(worker) };

export function started<T>(worker: Worker): Started<T> {
  return { call: connection.to<T>(worker), end: () => worker.terminate() };
}

/**
 * A call that reports progress. Progress has a port of its own, so some of it may arrive after the answer; that is ignored,
 * or a screen would wait forever for an answer that it has.
 */
export async function withProgress<Answer>(
  call: (progress: (share: number) => void) => Promise<Answer>,
  listener: (share: number) => void,
): Promise<Answer> {
  let isOver = false;
  try {
    return await call(
      proxy((share: number) => {
        if (!isOver) listener(share);
      }),
    );
  } finally {
    isOver = true;
  }
}
