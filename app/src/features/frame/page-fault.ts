/** A page whose files could not be had is no fault of the page: there is no server, and they were not kept. */
export const isUnloaded = (error: Error): boolean =>
  /^Loading (module|chunk|CSS chunk) .* failed/s.test(error.message);
