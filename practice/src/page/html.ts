import type { Kind } from '@ipsonomo/core/plan';
import { appliesAtOnce, macOnPage, written, type PageNow } from './now';

// The pages themselves, as plain as devices have them.

const STYLE =
  'body{font:16px/1.5 Verdana,sans-serif;margin:0;background:#e9eef0;color:#10262b}' +
  'header{background:#1f5560;color:#fff;padding:12px 16px;font-weight:bold}' +
  'main{padding:16px;max-width:26em}label{display:block;margin:12px 0 2px}' +
  'input{font:inherit;width:100%;padding:8px;box-sizing:border-box;border:1px solid #52727a}' +
  'button{font:inherit;padding:10px 18px;margin:14px 8px 0 0;border:1px solid #1f5560;background:#d5e6e9}' +
  'nav a{margin-right:16px;color:#1f5560}.bad{color:#8d1515}td{padding:2px 14px 2px 0}';

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

export const frame = (kind: Kind, body: string): string =>
  `<!doctype html><html lang="en"><head><title>${escaped(kind.name)}</title>` +
  `<meta name="viewport" content="width=device-width, initial-scale=1"><style>${STYLE}</style></head>` +
  `<body><header>${escaped(kind.maker)} ${escaped(kind.name)}</header><main>${body}</main></body></html>`;

const NAV = '<nav><a href="/network">Network</a><a href="/about">About</a></nav>';

const field = (id: string, label: string, value: string, more = ''): string =>
  `<label for="${id}">${label}</label><input id="${id}" name="${id}" value="${escaped(value)}" ${more}>`;

const button = (path: string, title: string, more = ''): string =>
  `<form method="post" action="${path}"><button ${more}>${title}</button></form>`;

export const loginHtml = (failed: boolean): string =>
  `<h1>Login</h1>${failed ? '<p class="bad">Name or password is wrong.</p>' : ''}` +
  `<form method="post" action="/login">${field('user', 'User', '')}` +
  `${field('password', 'Password', '', 'type="password"')}<button>Log in</button></form>`;

export const passwordHtml = (refused: string): string =>
  `<h1>New password</h1><p>The password is still the one of the factory. Choose another.</p>` +
  `<p class="bad">${refused}</p><form method="post" action="/password">` +
  `${field('password', 'New password', '', 'type="password"')}` +
  `${field('again', 'Once more', '', 'type="password"')}<button>Set password</button></form>`;

export function networkHtml(now: PageNow, refused = ''): string {
  const atOnce = appliesAtOnce(now.kind);
  const current = written(now.configured);
  const wanted = written(atOnce ? now.configured : (now.stored ?? now.configured));
  const isLocked = now.isConnected && now.kind.isLockedWhileConnected;
  const dead = isLocked ? 'disabled' : '';
  const isPending = !atOnce && wanted.address !== current.address;
  const notice = isLocked ? 'Read-only while its controller is connected.' : refused;
  return (
    `${NAV}<h1>Network</h1><p class="bad">${notice}</p><p>In use: ${current.address}</p>` +
    `<form method="post" action="/network">${field('address', 'Address', wanted.address, dead)}` +
    `${field('mask', 'Mask', wanted.mask, dead)}${field('gateway', 'Gateway', wanted.gateway, dead)}` +
    `<button ${dead}>${atOnce ? 'Apply' : 'Store'}</button></form>` +
    (isPending ? '<p>Stored. It is used after a restart.</p>' : '') +
    (atOnce ? button('/save', 'Save', dead) : button('/restart', 'Restart', dead))
  );
}

export const aboutHtml = ({ kind, mac, serial }: PageNow): string =>
  `${NAV}<h1>About</h1><table><tr><td>Model</td><td>${escaped(kind.name)}</td></tr>` +
  `<tr><td>MAC</td><td>${macOnPage(mac)}</td></tr><tr><td>Serial number</td><td>${serial}</td></tr>` +
  `<tr><td>Firmware</td><td>${escaped(kind.revision || '1.0')}</td></tr></table>`;

export const restartingHtml = (now: PageNow): string =>
  `<h1>Restarting</h1><p>It will be at ${written(now.stored ?? now.configured).address}.</p>`;
