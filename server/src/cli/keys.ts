import { request } from 'node:http';
import { join } from 'node:path';
import type { ErrorView, KeysView, NewKeyView } from '@ipsonomo/core/api';
import { sentenceOf } from '@ipsonomo/language';
import { invitation } from '../opening';
import type { Output } from './output';

/** The server's own socket, through which the machine's person needs no key. */
const SOCKET = join(process.env['IPSONOMO_DATA'] ?? join(process.cwd(), '.local'), 'ipsonomo.sock');

function ask<T>(method: string, path: string): Promise<T> {
  return new Promise((resolve, reject) => {
    const headers = { 'x-person': encodeURIComponent(process.env['USER'] ?? 'the terminal') };
    const asked = request(
      { socketPath: SOCKET, method, path: `/api${path}`, headers },
      (answer) => {
        let text = '';
        answer.setEncoding('utf8').on('data', (part: string) => (text += part));
        answer.on('end', () => {
          const value: unknown = text === '' ? undefined : JSON.parse(text);
          if ((answer.statusCode ?? 500) < 400) resolve(value as T);
          else reject(new Error((value as ErrorView).issues.map(sentenceOf).join(' ')));
        });
      },
    );
    asked.on('error', () => reject(new Error(`No server answers at ${SOCKET}. Start it first.`)));
    asked.end();
  });
}

/** Runs what asks the server; why it went wrong is told. */
async function asking({ tell }: Output, act: () => Promise<void>): Promise<boolean> {
  try {
    await act();
    return true;
  } catch (error) {
    tell(error instanceof Error ? error.message : String(error));
    return false;
  }
}

/** Makes a key, and shows it as a terminal can. */
export const key = (_inputs: readonly string[], output: Output): Promise<boolean> =>
  asking(output, async () => {
    const made = await ask<NewKeyView>('POST', '/keys');
    output.tell(await invitation(made.addresses, made.key, 'key'));
    output.print(made);
  });

/** Every browser that was let in and every key that is good, a line each; with `take-back ID` one of them no longer. */
export const keys = (inputs: readonly string[], output: Output): Promise<boolean> =>
  asking(output, async () => {
    const [act, id = ''] = inputs;
    if (act === 'take-back') await ask('DELETE', `/keys/${encodeURIComponent(id)}`);
    const { browsers, invitations } = await ask<KeysView>('GET', '/keys');
    for (const { isOwn: _own, ...browser } of browsers)
      output.print({ kind: 'browser', ...browser });
    for (const one of invitations) output.print({ kind: 'key', ...one });
  });
