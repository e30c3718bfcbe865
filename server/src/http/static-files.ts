import { existsSync, readdirSync } from 'node:fs';
import { join, relative } from 'node:path';
import express, { Router, type Request, type Response } from 'express';

/** How a browser may be sent a file that was compressed when it was built, the smallest first. */
const ENCODINGS = [
  ['br', '.br'],
  ['gzip', '.gz'],
] as const;

const endingOf = (path: string): string | undefined =>
  ENCODINGS.map(([, ending]) => ending).find((ending) => path.endsWith(ending));

/** A compressed file is what it was before, and says how it is packed. */
function describe(response: Response, path: string): void {
  const ending = endingOf(path);
  if (ending === undefined) return;
  const encoding = ENCODINGS.find(([, one]) => one === ending)?.[0] ?? '';
  response.type(/\.\w+$/.exec(path.slice(0, -ending.length))?.[0] ?? '');
  response.setHeader('Content-Encoding', encoding);
}

/**
 * The files of a folder, each as small as it was built for this browser: packing three megabytes for every one that comes
 * costs a fifth of a second and more bytes.
 * @param folder as it is when this is made
 */
export function staticFiles(folder: string, options: Parameters<typeof express.static>[1]): Router {
  const router = Router();
  // A folder that is not there, or not yet, has no files.
  const entries = existsSync(folder)
    ? readdirSync(folder, { recursive: true, withFileTypes: true })
    : [];
  const packed = new Set(
    entries
      .filter((entry) => entry.isFile() && endingOf(entry.name) !== undefined)
      .map((entry) => `/${relative(folder, join(entry.parentPath, entry.name))}`),
  );
  router.use((request, response, next) => {
    response.vary('Accept-Encoding');
    const ending = packedFor(request, packed);
    if (ending !== undefined) request.url = request.url.replace(/(\?|$)/, `${ending}$1`);
    next();
  });
  router.use(express.static(folder, { ...options, setHeaders: describe }));
  return router;
}

const packedFor = (request: Request, packed: ReadonlySet<string>): string | undefined => {
  const path = decoded(request.path);
  return ENCODINGS.find(
    ([name, ending]) => packed.has(`${path}${ending}`) && request.acceptsEncodings(name) === name,
  )?.[1];
};

/** What stands for nothing is no file of ours. */
function decoded(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return '';
  }
}
