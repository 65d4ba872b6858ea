import { AsyncLocalStorage } from 'node:async_hooks';

/** Who waits for what is being done. */
export interface Asking {
  /** By which turns are taken: a person, or an address of the network. */
  readonly by: string;
  /** Aborted when whoever asked has gone away. */
  readonly gone: AbortSignal;
}

/** The request that a piece of work belongs to; empty for what the server does by itself. */
export const asking = new AsyncLocalStorage<Asking>();
