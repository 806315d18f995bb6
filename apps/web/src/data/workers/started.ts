import { proxy, wrap, type Remote } from 'comlink';

/** A running worker: call its functions as if they were local, or stop it in the middle. */
export interface Started<T> {
  readonly call: Remote<T>;
  readonly end: () => void;
}

/** How to call a worker's functions. Tests answer in its place. */
export const connection = { to: <T>(worker: Worker): Remote<T> => wrap<T>(worker) };

export function started<T>(worker: Worker): Started<T> {
  return { call: connection.to<T>(worker), end: () => worker.terminate() };
}

/**
 * A call with progress. Progress has its own port and may arrive after the answer; it is then ignored, otherwise a screen would wait
 * forever.
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
