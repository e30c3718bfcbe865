const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// In development the API is the server's; the built application is served by it.
const server = process.env.IPSONOMO_API ?? 'http://127.0.0.1:4780';
config.server.enhanceMiddleware = (metro) => (request, response, next) => {
  if (!request.url.startsWith('/api/')) return metro(request, response, next);
  const { request: forward } = require('node:http');
  const target = new URL(request.url, server);
  const options = { method: request.method, headers: { ...request.headers, host: target.host } };
  const upstream = forward(target, options, (answer) => {
    response.writeHead(answer.statusCode, answer.headers);
    answer.pipe(response);
  });
  upstream.on('error', () => response.writeHead(503).end());
  request.pipe(upstream);
};

module.exports = config;
