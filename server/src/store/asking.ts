import { translateDatabaseError } from './refusal';

/** Asks the database; what it cannot do becomes a refusal that a person understands. */
export async function asking<T>(work: () => PromiseLike<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw translateDatabaseError(error);
  }
}
