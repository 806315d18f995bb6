import { wrap, type Remote } from 'comlink';

/** A worker that is running, with its functions to be called as if they were here, and how to end it in the middle of its work. */
export interface Started<T> {
  readonly call: Remote<T>;
  readonly end: () => void;
}

export function started<T>(worker: Worker): Started<T> {
  return { call: wrap<T>(worker), end: () => worker.terminate() };
}
