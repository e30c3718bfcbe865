import { breath } from '../common/in-turns';

// A long answer is written a piece at a time: as one text, the plan of a large site would hold up everybody else.

/** From so many members on, a list or a table is long. */
const LONG = 1000;

/** So many members are one piece. */
const AT_ONCE = 500;

/** How deep in an answer a long list is looked for. */
const DEEPEST = 3;

type Table = Readonly<Record<string, unknown>>;

const isTable = (value: unknown): value is Table =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && !('toJSON' in value);

/** Whether an answer has a list or a table in it that is better not written in one go. */
export function isLong(value: unknown, depth = DEEPEST): boolean {
  if (Array.isArray(value)) return value.length >= LONG;
  if (!isTable(value)) return false;
  const members = Object.values(value);
  return members.length >= LONG || (depth > 0 && members.some((one) => isLong(one, depth - 1)));
}

/** The same text as of `JSON.stringify`, in pieces. */
export function* jsonPieces(value: unknown, depth = DEEPEST): Generator<string> {
  if (!isLong(value, depth)) yield JSON.stringify(value);
  else if (Array.isArray(value)) yield* listed('[', grouped(value), ']');
  else yield* tabled(Object.entries(value as Table), depth);
}

function* tabled(members: readonly (readonly [string, unknown])[], depth: number) {
  if (members.length >= LONG) yield* listed('{', grouped(members, Object.fromEntries), '}');
  else {
    let before = '{';
    for (const [name, member] of members) {
      if (member === undefined) continue;
      yield `${before}${JSON.stringify(name)}:`;
      yield* jsonPieces(member, depth - 1);
      before = ',';
    }
    yield before === '{' ? '{}' : '}';
  }
}

/** The texts of so many members at a time, without the brackets around them. */
function* grouped<T>(
  members: readonly T[],
  made: (some: readonly T[]) => unknown = (some) => some,
): Generator<string> {
  for (let from = 0; from < members.length; from += AT_ONCE)
    yield JSON.stringify(made(members.slice(from, from + AT_ONCE))).slice(1, -1);
}

function* listed(open: string, groups: Iterable<string>, close: string): Generator<string> {
  let before = open;
  for (const group of groups) {
    // All members of a group may be left out, as those without a value are.
    if (group === '') continue;
    yield before + group;
    before = ',';
  }
  yield before === open ? open + close : close;
}

/** The same as bytes, with a pause after each piece. */
export async function* jsonBytes(value: unknown): AsyncGenerator<Uint8Array> {
  for (const piece of jsonPieces(value)) {
    yield Buffer.from(piece);
    await breath();
  }
}
