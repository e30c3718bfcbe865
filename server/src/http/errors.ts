import type { ErrorRequestHandler } from 'express';
import type { ErrorView } from '@ipsonomo/core/api';
import type { Issue, IssueCode, IssueFamily, Unread } from '@ipsonomo/core/net';
import { FieldRefusal } from '@ipsonomo/wire';
import { Refusal } from '../store/refusal';

type Status = 400 | 401 | 403 | 404 | 409 | 413 | 422 | 429 | 500 | 503;

/** The status of a code, by the code itself or by the part before its dot. */
const STATUS: Readonly<Partial<Record<IssueCode | IssueFamily, Status>>> = {
  'body.invalid': 400,
  'body.tooLarge': 413,
  'door.locked': 401,
  'door.wrongKey': 403,
  'door.tooMany': 409,
  'door.slow': 429,
  'door.full': 503,
  'door.busy': 503,
  'reading.busy': 503,
  'people.wrong': 403,
  'people.wrongOld': 403,
  'people.nameTaken': 409,
  'people.lastKeeper': 409,
  right: 403,
  'thing.unknown': 404,
  'wire.noRight': 403,
  'wire.ownWeb': 403,
  'wire.otherName': 403,
  'wire.noAdapter': 404,
  'store.away': 503,
  'store.busy': 503,
  'server.away': 503,
  'server.awayForWire': 503,
  'server.busy': 503,
  'server.thinking': 503,
  'server.failed': 500,
  'address.taken': 409,
  'name.taken': 409,
  job: 409,
  'rehearsal.none': 404,
  rehearsal: 409,
  'package.nothing': 409,
  'package.wrong': 409,
  'package.fell': 503,
  bundle: 400,
  photo: 400,
  note: 400,
  'bundle.large': 413,
  'bundle.otherJob': 409,
  'bundle.history': 409,
  'bundle.rehearsal': 409,
  'photo.large': 413,
  'photo.full': 409,
  'photo.missing': 404,
  'paper.large': 413,
  'paper.full': 409,
  'paper.missing': 404,
  'mac.taken': 409,
  'edit.conflict': 409,
  'undo.none': 409,
  'redo.none': 409,
  'device.inUse': 409,
  'device.otherKind': 409,
  'device.otherRevision': 409,
  'device.mayBeUsed': 409,
  page: 409,
  store: 409,
  field: 409,
  wire: 409,
  waiting: 409,
  call: 409,
};

/** Families of codes that say what is wrong with what was sent (RFC 9110 §15.5.21). */
const SENT_WRONG: ReadonlySet<string> = new Set<IssueFamily>([
  ...([
    'ipv4',
    'prefix',
    'mask',
    'range',
    'mac',
    'hex',
    'bytes',
    'label',
    'switches',
    'pattern',
    'card',
    'known',
  ] as const),
  ...([
    'file',
    'pcap',
    'list',
    'paper',
    'cell',
    'person',
    'rehearse',
    'copy',
    'split',
    'need',
    'entered',
    'read',
    'people',
  ] as const),
  ...(['name', 'station', 'dhcpName', 'variable', 'subnet', 'kind', 'address', 'gateway'] as const),
  ...(['proof', 'vigil', 'path', 'talk', 'register', 'sweep', 'walk', 'route', 'pin'] as const),
]);

/** The status that a code, or its family, is given here; undefined where nobody thought of it. */
export function givenStatus(code: string): Status | undefined {
  const family = code.split('.')[0] ?? '';
  return own(code) ?? own(family) ?? (SENT_WRONG.has(family) ? 422 : undefined);
}

export const statusOf = (code: string): Status => givenStatus(code) ?? 422;

const own = (key: string): Status | undefined =>
  Object.hasOwn(STATUS, key) ? STATUS[key as IssueCode] : undefined;

function issuesOf(error: unknown): readonly Issue[] | undefined {
  if (error instanceof Refusal) return error.issues;
  if (error instanceof FieldRefusal) return [{ ...error.told, where: '' } as Issue];
  if (!(error instanceof Error)) return undefined;
  if (error instanceof URIError) return notReadable('address', 'address');
  const isTheirs = 'status' in error && error.status === 400;
  // Packed wrongly: zlib tells that by a number alone.
  if (!('type' in error)) return isTheirs ? notReadable('request', 'body') : undefined;
  // body-parser's own refusals.
  if (error.type === 'entity.parse.failed') return notReadable('request', 'not-json');
  if (error.type === 'entity.too.large') return [{ code: 'body.tooLarge', where: 'request' }];
  const unread = UNREAD[String(error.type)];
  if (unread !== undefined) return notReadable('request', unread);
  return isTheirs ? notReadable('request', 'body') : undefined;
}

/** What body-parser says of a body that it does not read. */
const UNREAD: Readonly<Record<string, Unread>> = {
  'encoding.unsupported': 'packing',
  'charset.unsupported': 'character-set',
  'encoding.invalid': 'packed-wrongly',
  'request.aborted': 'broken-off',
  'request.size.invalid': 'length',
  'parameters.too.many': 'parts',
};

const notReadable = (where: string, unread: Unread): readonly Issue[] => [
  { code: 'body.invalid', where, facts: { unread } },
];

/** Seconds after which whoever was sent away may come back. */
const AGAIN = 5;

/** The one place where errors become answers. What is not expected is logged and told plainly. */
export const errorHandler =
  (log: (line: string) => void): ErrorRequestHandler =>
  (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const issues = issuesOf(error);
    if (!issues)
      log(
        `${request.method} ${request.path}: ${error instanceof Error ? error.stack : String(error)}`,
      );
    const known = issues ?? [{ code: 'server.failed', where: '' }];
    const code = known[0]?.code ?? 'server.failed';
    const conflicts = error instanceof Refusal ? error.conflicts : [];
    const view: ErrorView =
      conflicts.length > 0 ? { code, issues: known, conflicts } : { code, issues: known };
    const status = statusOf(code);
    // RFC 9110 §10.2.3: when to come back.
    if ((status === 429 || status === 503) && !response.hasHeader('Retry-After'))
      response.set('Retry-After', String(AGAIN));
    response.status(status).json(view);
  };
