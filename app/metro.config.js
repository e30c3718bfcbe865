const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// In development the API is the server's; the built application is served by it.
const server = process.env.IPSONOMO_API ?? 'http://127.0.0.1:4780';
config.server.enhanceMiddleware = (metro) => (request, response, next) => {
  if (!request.url.startsWith('/api/')) return metro(request, response, next);
  const { request: forward } = require('node:http');
  const target = new URL(request.url, server);
  const options = { method: request.method, headers: headersOf(request, target) };
  const upstream = forward(target, options, (answer) => {
    response.writeHead(answer.statusCode, answer.headers);
    answer.pipe(response);
  });
  upstream.on('error', () => response.writeHead(503).end());
  request.pipe(upstream);
};

/** The browser speaks with the development server's page; the API takes nothing from a page that is not its own. */
function headersOf({ headers }, { host, origin }) {
  return { ...headers, host, ...(headers.origin ? { origin } : {}) };
}

module.exports = config;
