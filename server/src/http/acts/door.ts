import { stringifySetCookie } from 'cookie';
import type { doorActs } from '@ipsonomo/contract';
import { isMachine } from '../../common/machine';
import { Refusal } from '../../store/refusal';
import { cookieName } from '../browsers';
import type { Handlers } from '../serve';
import type { Services } from '../services';

const HOLDS = 400 * 24 * 3600; // seconds: the longest that browsers keep a cookie (RFC 6265bis §5.5)

export const doorHandlers = ({ door }: Services): Handlers<typeof doorActs> => ({
  readDoor: ({ actor, request }) => {
    const isOurs = actor.browser === undefined;
    if (isOurs && !isMachine(request)) throw Refusal.of('door.locked', '');
    return { isMachine: isOurs };
  },
  enter: async ({ body, request, response }) => {
    const secret = await door.enter(body.key, request.header('user-agent') ?? '');
    const value = stringifySetCookie({
      ...{ name: cookieName(request), value: secret, path: '/', maxAge: HOLDS },
      ...{ httpOnly: true, sameSite: 'strict' as const, secure: request.secure },
    });
    response.set('Set-Cookie', value);
  },
});
