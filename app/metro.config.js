const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// The elements' library brings eighteen sets of icons, half a megabyte of their names and four of their fonts. None is
// drawn here: what a thing is stands beside it in words.
const ICONS = /(^|\/)(@expo\/vector-icons|react-native-vector-icons)(\/|$)/;
// Its door opens all of it; what is used stands in a file of its own.
const USED = `${__dirname}/src/theme/rneui.ts`;
// Lists and navigators that the doors of their libraries open and nobody here uses: a screen is a route, a list a LongList.
const UNUSED = [
  /react-native-web\/dist\/(vendor\/react-native\/)?(exports\/)?(VirtualizedList|VirtualizedSectionList|FlatList|SectionList)\//,
  /expo-router\/build\/layouts\/(Tabs|TabsClient|Stack|Stack\.web|BaseStack|experimental-stack)(\.js|\/)/,
  /expo-router\/build\/(fork\/native-stack\/NativeStackView|react-navigation\/native-stack\/views|layouts\/stack-utils)(\.|\/)/,
  // Messages have words, plurals and choices, and no patterns of dates or figures.
  /@formatjs\/icu-skeleton-parser\//,
  /expo-router\/build\/(native-tabs|react-navigation\/bottom-tabs\/(navigators|views))\//,
];
config.resolver.resolveRequest = (context, name, platform) => {
  if (ICONS.test(name)) return { type: 'empty' };
  const found = context.resolveRequest(context, name === '@rneui/themed' ? USED : name, platform);
  const isUnused = platform === 'web' && UNUSED.some((one) => one.test(found.filePath ?? ''));
  return isUnused ? { type: 'empty' } : found;
};

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
