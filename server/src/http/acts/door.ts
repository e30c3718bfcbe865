import { stringifySetCookie } from 'cookie';
import type { Request, Response } from 'express';
import type { doorActs } from '@ipsonomo/contract';
import { isMachine } from '../../common/machine';
import { Refusal } from '../../store/refusal';
import { cookieName } from '../browsers';
import type { Handlers } from '../serve';
import type { Services } from '../services';

const HOLDS = 400 * 24 * 3600; // seconds: the longest that browsers keep a cookie (RFC 6265bis §5.5)

export const doorHandlers = ({ door, isDemo }: Services): Handlers<typeof doorActs> => {
  const giveCookie = (request: Request, response: Response, secret: string) =>
    void response.set(
      'Set-Cookie',
      stringifySetCookie({
        ...{ name: cookieName(request), value: secret, path: '/', maxAge: HOLDS },
        ...{ httpOnly: true, sameSite: 'strict' as const, secure: request.secure },
      }),
    );
  const deviceOf = (request: Request) => request.header('user-agent') ?? '';
  return {
    readDoor: ({ actor, request }) => {
      const isOurs = actor.browser === undefined;
      if (isOurs && !isMachine(request)) throw Refusal.of('door.locked', '');
      return { isMachine: isOurs, isDemo };
    },
    enter: async ({ body: { key, name = '', password }, request, response }) =>
      giveCookie(
        request,
        response,
        await door.enter({ key, name, password, device: deviceOf(request) }),
      ),
    signIn: async ({ body, request, response }) => {
      const from = request.socket.remoteAddress ?? 'machine';
      const { name, password } = body;
      giveCookie(request, response, await door.signIn(name, password, deviceOf(request), from));
    },
  };
};
