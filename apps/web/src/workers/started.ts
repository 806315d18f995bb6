import { proxy, wrap, type Remote } from 'comlink';

/** A worker that is running, with its functions to be called as if they were here, and how to end it in the middle of its work. */
export interface Started<T> {
  readonly call: Remote<T>;
  readonly end: () => void;
}

export function started<T>(worker: Worker): Started<T> {
  return { call: wrap<T>(worker), end: () => worker.terminate() };
}

/**
 * A call that tells how far it is. What it tells travels by a port of its own, so some of it may arrive after the answer; that is passed over,
 * or a screen would wait for ever for what it has.
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
