import { SERVER_WORDS } from '@ipsonomo/language/terminal';
import pino, { type DestinationStream } from 'pino';

/** Lines in a while; what comes beyond it is counted and left out, so that nobody fills a disk by asking. */
const MOST_LINES = 50;
const WHILE = 10_000;

/** A key, or a cookie, is no matter for a log, wherever it comes from. */
const SECRET = /(ipsonomo-\d+=|ipsonomo-key=|key=)[^\s;&"']+/g;
const PASSWORD = /(:\/\/[^:@/\s]+:)[^@/\s]+(?=@)/g;
export const withoutSecrets = (line: string): string =>
  line.replace(SECRET, '$1…').replace(PASSWORD, '$1…');

/**
 * The log of the server: one JSON object a line on standard error, as journald and every collector read it.
 * @param destination where it goes, for tests
 */
export function openLog(
  destination: DestinationStream = pino.destination({ dest: 2, sync: true }),
  now: () => number = Date.now,
): (line: string) => void {
  const logger = pino(
    { base: { pid: process.pid }, timestamp: pino.stdTimeFunctions.isoTime },
    destination,
  );
  let since = now();
  let count = 0;
  return (line) => {
    if (now() - since > WHILE) {
      if (count > MOST_LINES) logger.warn(SERVER_WORDS.linesLeftOut({ count: count - MOST_LINES }));
      since = now();
      count = 0;
    }
    count += 1;
    if (count <= MOST_LINES) logger.error(withoutSecrets(line));
  };
}
