import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { TYPE, parse, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import ts from 'typescript';

// Sentences for people stand in this room and nowhere else, and none stands here for nobody.

const ROOT = join(__dirname, '../..');
const SCREENS = join(ROOT, 'language/src/en/screens');

const filesOf = (folder: string): readonly string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => /\.tsx?$/.test(path))
    .map((path) => join(folder, path));

const sourceOf = (path: string): ts.SourceFile =>
  ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);

function each(node: ts.Node, seen: (node: ts.Node) => void): void {
  seen(node);
  ts.forEachChild(node, (child) => each(child, seen));
}

/** Two words one after the other, or text between two tags: what a person would read. */
const SENTENCE = /\p{L}{2,}[,:;]? \p{L}{2,}/u;
/** What a program reads: names of drafts, styles, patterns of dates, a name by which a page tells its own errors. */
const PROGRAM = new Set([
  'useDraft',
  'useKept',
  'useNarrowed',
  'format',
  'Error',
  'RegExp',
  'join',
  'split',
  'about',
]);
const STYLE = /^(contain|transition|grid\w+|boxShadow|border\w*|outline)$/;

function isForProgram(node: ts.Node): boolean {
  const { parent } = node;
  if (ts.isCallExpression(parent) || ts.isNewExpression(parent)) {
    const { expression } = parent;
    return PROGRAM.has(
      ts.isPropertyAccessExpression(expression) ? expression.name.text : expression.getText(),
    );
  }
  if (ts.isJsxExpression(parent) || ts.isConditionalExpression(parent)) return isForProgram(parent);
  if (ts.isJsxAttribute(parent)) return PROGRAM.has(parent.name.getText());
  return ts.isPropertyAssignment(parent) && STYLE.test(parent.name.getText());
}

function textOf(node: ts.Node): string {
  if (ts.isJsxText(node)) return node.text.trim().replace(/^(\p{L}{2,})$/u, '$1 $1');
  if (ts.isStringLiteralLike(node)) return node.text;
  if (!ts.isTemplateExpression(node)) return '';
  return [node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join('1');
}

/** Every sentence for people in a file, with its line. */
function sentencesIn(path: string): readonly string[] {
  const source = sourceOf(path);
  const found: string[] = [];
  each(source, (node) => {
    const text = textOf(node);
    if (!SENTENCE.test(text) || isForProgram(node)) return;
    const { line } = source.getLineAndCharacterOfPosition(node.getStart());
    found.push(`${path.slice(ROOT.length + 1)}:${line + 1} ${text}`);
  });
  return found;
}

test('the application has no sentence of its own', () => {
  // A comparison of pictures of fonts, and names of fonts.
  const off = /theme\/type\.ts|picture\/layout\.ts|use-draft\.ts/;
  const files = filesOf(join(ROOT, 'app/src')).filter((path) => !off.test(path));
  expect(files.length).toBeGreaterThan(200);
  expect(files.flatMap(sentencesIn)).toEqual([]);
});

/** Three words one after the other: shorter ones are names of the trade, of programs and of their fields. */
const LONG_SENTENCE = /\p{L}{2,}[,:;]? \p{L}{2,}[,:;]? \p{L}{2,}/u;
/** Invented sites, SQL, and words of others' formats: HTML, C, and configurations of servers. */
const OTHERS =
  /^(server\/src\/(demo|store\/)|server\/src\/pages\/told|wire\/src\/carriers\/linux\/libc|handover\/src\/formats\/(dhcpd|nftables|kea|zone|picture)\/)/;
/** What no person reads: whoever has no password is compared with the hash of this. */
const UNREAD = /a password that nobody has/;

test.each([
  ['server', 100],
  ['wire', 50],
  ['threads', 4],
  ['handover', 40],
])('%s has no sentence of its own', (room, least) => {
  const files = filesOf(join(ROOT, room, 'src'));
  expect(files.length).toBeGreaterThan(least);
  const found = files
    .filter((path) => !OTHERS.test(path.slice(ROOT.length + 1)))
    .flatMap(sentencesIn)
    .filter((line) => LONG_SENTENCE.test(line) && !UNREAD.test(line));
  expect(found).toEqual([]);
});

/** The messages of one file of screens, by their key. */
function messagesIn(path: string): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  each(sourceOf(path), (node) => {
    if (ts.isPropertyAssignment(node) && ts.isStringLiteralLike(node.initializer))
      found.set(node.name.getText(), node.initializer.text);
  });
  return found;
}

/** Whether each plural and choice has its last branch, and says what it counts. */
function wholeOf(elements: readonly MessageFormatElement[]): boolean {
  return elements.every((one) =>
    one.type === TYPE.plural || one.type === TYPE.select
      ? one.options['other'] !== undefined &&
        Object.values(one.options).every(({ value }) => wholeOf(value))
      : true,
  );
}

const ALL = filesOf(SCREENS).map((path) => [path.slice(SCREENS.length + 1), path] as const);
/** Where messages are said: on pages, and in what is made of messages for paper too. */
const MADE_OF_MESSAGES = ['swap-steps.ts', 'screens/picture.ts'];
const APP = [
  ...filesOf(join(ROOT, 'app/src')),
  ...MADE_OF_MESSAGES.map((name) => join(ROOT, 'language/src/en', name)),
]
  .map((path) => readFileSync(path, 'utf8'))
  .join('\n');

test.each(ALL)('%s: each message can be read and is said somewhere', (name, path) => {
  const constant = `${name.replace('.ts', '').replaceAll('-', '_').toUpperCase()}_WORDS`;
  const found = messagesIn(path);
  expect(found.size).toBeGreaterThan(0);
  for (const [key, text] of found) {
    expect([key, wholeOf(parse(text, { ignoreTag: true }))]).toEqual([key, true]);
    expect([key, new RegExp(`\\b${constant}\\.${key}\\b`).test(APP)]).toEqual([key, true]);
  }
});

test.each(['terminal', 'relayed', 'kept'])('%s: the server says each of its messages', (name) => {
  const server = filesOf(join(ROOT, 'server/src')).map((path) => readFileSync(path, 'utf8'));
  const keys = [...messagesIn(join(ROOT, `language/src/en/${name}.ts`)).keys()];
  expect(keys.length).toBeGreaterThan(3);
  const said = server.join('\n');
  const isSaid = (key: string) =>
    said.includes(`_WORDS.${key}`) || (name === 'relayed' && said.includes(`'${key}'`));
  expect(keys.filter((key) => !isSaid(key))).toEqual([]);
});
