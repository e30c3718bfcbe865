import { request } from 'node:http';
import { join } from 'node:path';
import type { ErrorView, KeysView, NewKeyView, PeopleView } from '@ipsonomo/core/api';
import { sentenceOf } from '@ipsonomo/language';
import { COMMAND_WORDS } from '@ipsonomo/language/terminal';
import { invitation } from '../opening';
import { whyOf, type Output } from './output';

/** The server's own socket, through which the machine's person needs no key. */
const ownSocket = (): string =>
  join(process.env['IPSONOMO_DATA'] ?? join(process.cwd(), '.local'), 'ipsonomo.sock');

function ask<T>(method: string, path: string, body?: object): Promise<T> {
  const socketPath = ownSocket();
  return new Promise((resolve, reject) => {
    const headers = {
      'x-person': encodeURIComponent(process.env['USER'] ?? 'the terminal'),
      'content-type': 'application/json',
    };
    const asked = request({ socketPath, method, path: `/api${path}`, headers }, (answer) => {
      let text = '';
      answer.setEncoding('utf8').on('data', (part: string) => (text += part));
      answer.on('end', () => {
        const value: unknown = text === '' ? undefined : JSON.parse(text);
        if ((answer.statusCode ?? 500) < 400) resolve(value as T);
        else reject(new Error((value as ErrorView).issues.map(sentenceOf).join(' ')));
      });
    });
    asked.on('error', () => reject(new Error(COMMAND_WORDS.noServerAnswers({ path: socketPath }))));
    asked.end(body === undefined ? undefined : JSON.stringify(body));
  });
}

/** Runs what asks the server; why it went wrong is told. */
async function asking({ tell }: Output, act: () => Promise<void>): Promise<boolean> {
  try {
    await act();
    return true;
  } catch (error) {
    tell(whyOf(error));
    return false;
  }
}

async function tellKey(wish: object, output: Output): Promise<void> {
  const made = await ask<NewKeyView>('POST', '/keys', wish);
  output.tell(await invitation(made.addresses, made.key, 'key'));
  output.print(made);
}

/** Makes a key for somebody new, and shows it as a terminal can; who is at the machine may let anybody do anything. */
export const key = ([role = 'keep']: readonly string[], output: Output): Promise<boolean> =>
  asking(output, () => tellKey({ role }, output));

/**
 * Every account, a line each; with `key NAME` a key with which its person comes in again, whatever they have forgotten; with
 * `role NAME ROLE` what they may do; with `end NAME` none of it any more.
 */
export const people = (inputs: readonly string[], output: Output): Promise<boolean> =>
  asking(output, async () => {
    const [act, name = '', role = ''] = inputs;
    const all = () => ask<PeopleView>('GET', '/people');
    if (act !== undefined) {
      const { accounts } = await all();
      const one = accounts.find((each) => each.name.toLowerCase() === name.toLowerCase());
      if (!one) throw new Error(COMMAND_WORDS.nobodyIsCalled({ name }));
      if (act === 'key') return tellKey({ account: one.id }, output);
      if (act === 'role') await ask('POST', `/people/${one.id}`, { role });
      else if (act === 'end') await ask('DELETE', `/people/${one.id}`);
      else throw new Error(COMMAND_WORDS.noSuchAct({ act }));
    }
    for (const { isOwn: _own, ...account } of (await all()).accounts) output.print(account);
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
