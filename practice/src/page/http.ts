import { fromLatin1, toLatin1 } from '@ipsonomo/core/wire';

/** A request of a browser, as far as a small device understands it (RFC 9112). */
export interface PageRequest {
  readonly method: string;
  readonly path: string;
  readonly cookie: string;
  readonly form: URLSearchParams;
}

export interface PageAnswer {
  readonly status: number;
  readonly body: string;
  readonly location?: string;
  readonly cookie?: string;
}

const END_OF_HEAD = '\r\n\r\n';
const MOST = 16_384;

/**
 * The request in what arrived so far.
 * @returns undefined while it is not whole, `bad` where it is none
 */
export function readRequest(bytes: Uint8Array): PageRequest | undefined | 'bad' {
  if (bytes.length > MOST) return 'bad';
  const text = toLatin1(bytes);
  const end = text.indexOf(END_OF_HEAD);
  if (end < 0) return undefined;
  const [first = '', ...lines] = text.slice(0, end).split('\r\n');
  const [, method, path] = /^([A-Z]+) (\/\S*) HTTP\/1\.[01]$/.exec(first) ?? [];
  if (method === undefined || path === undefined) return 'bad';
  const headers = new Map(
    lines.map((line) => {
      const colon = line.indexOf(':');
      return [line.slice(0, colon).toLowerCase(), line.slice(colon + 1).trim()];
    }),
  );
  const length = Number(headers.get('content-length') ?? 0);
  const body = text.slice(end + END_OF_HEAD.length);
  if (body.length < length) return undefined;
  const form = new URLSearchParams(body.slice(0, length));
  return { method, path, cookie: headers.get('cookie') ?? '', form };
}

const REASONS: Readonly<Record<number, string>> = {
  200: 'OK',
  303: 'See Other',
  400: 'Bad Request',
  403: 'Forbidden',
  404: 'Not Found',
};

/** The bytes of an answer; the connection ends with it. */
export function answerBytes({ status, body, location, cookie }: PageAnswer): Uint8Array {
  // Umlauts and the like go as numbers, so that bytes and characters are the same.
  const plain = body.replace(/[^\x00-\x7f]/gu, (letter) => `&#${letter.codePointAt(0)};`);
  const head = [
    `HTTP/1.1 ${status} ${REASONS[status] ?? 'Error'}`,
    'Content-Type: text/html; charset=us-ascii',
    `Content-Length: ${plain.length}`,
    'Cache-Control: no-store',
    'Connection: close',
    ...(location === undefined ? [] : [`Location: ${location}`]),
    ...(cookie === undefined ? [] : [`Set-Cookie: ${cookie}; Path=/; HttpOnly`]),
  ];
  return fromLatin1(`${head.join('\r\n')}${END_OF_HEAD}${plain}`);
}
