import { AsyncLocalStorage, AsyncResource } from 'node:async_hooks';
import { Sequelize, Transaction } from 'sequelize';
import { database } from './database';

type Context = Map<string, unknown>;
const store = new AsyncLocalStorage<Context>();
const current = () => store.getStore()?.get('transaction') as Transaction | undefined;

/**
 * What Sequelize keeps the current transaction in (its CLS): every query and model call made inside
 * `inTransaction` takes it without being handed it. It counts for all instances of a process.
 */
Sequelize.useCLS({
  bind: (work: (...args: unknown[]) => unknown) => AsyncResource.bind(work),
  run: (work: (context: Context) => unknown) => {
    const context: Context = new Map(store.getStore());
    return store.run(context, () => work(context));
  },
  get: (key: string) => store.getStore()?.get(key),
  set: (key: string, value: unknown) => store.getStore()?.set(key, value),
});

/** All or nothing: runs the work in the current transaction, or in a new one where there is none. */
export function inTransaction<T>(work: () => Promise<T>): Promise<T> {
  return current() ? work() : database().transaction(work);
}

/** A transaction of its own in which every read sees the same moment, for a backup beside other work. */
export function inSnapshot<T>(work: () => Promise<T>): Promise<T> {
  const isolationLevel = Transaction.ISOLATION_LEVELS.REPEATABLE_READ;
  return outsideTransaction(() => database().transaction({ isolationLevel }, work));
}

/**
 * Runs the work on connections of its own, whatever transaction is open: what it writes outlives a
 * rollback. A second database must be used inside it, since the current transaction is another's.
 */
export function outsideTransaction<T>(work: () => Promise<T>): Promise<T> {
  return store.run(new Map(), work);
}
