import { createContext, useContext } from 'react';

const JobHere = createContext<string | undefined>(undefined);

/** Around every page of a job. */
export const JobProvider = JobHere.Provider;

/** The job whose page this is; its wire is the one that the page follows. @throws outside of a job */
export function useJobHere(): string {
  const job = useContext(JobHere);
  if (job === undefined) throw new Error('this is no page of a job');
  return job;
}
