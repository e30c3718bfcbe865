import { execFileSync } from 'node:child_process';
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';

// The import table itself: that every room stands in it, and that it bites.

const ROOT = join(__dirname, '../..');
const TABLE = '.dependency-cruiser.cjs';

interface Rule {
  readonly name: string;
  readonly from: { readonly path?: string };
}

// eslint-disable-next-line @typescript-eslint/no-require-imports
const { forbidden } = require(join(ROOT, TABLE)) as { readonly forbidden: readonly Rule[] };

// eslint-disable-next-line @typescript-eslint/no-require-imports
const { workspaces: WORKSPACES } = require(join(ROOT, 'package.json')) as {
  readonly workspaces: readonly string[];
};

const roomsIn = (folder: string): readonly string[] =>
  readdirSync(join(ROOT, folder), { withFileTypes: true })
    .filter((entry) => entry.isDirectory())
    .map(({ name }) => name);

test.each([
  ...roomsIn('core/src').map((room) => ['core/src', room] as const),
  ...['wire/src', 'server/src'].flatMap((folder) =>
    roomsIn(folder).map((room) => [folder, room] as const),
  ),
])('%s/%s has a rule of its own', (folder, room) => {
  const path = `^${folder}/${room}(/|\\.ts$)`;
  expect(forbidden.filter(({ from }) => from.path === path)).not.toEqual([]);
});

/** Each a file that is not there, and what it would import. */
const PLANTED: readonly (readonly [from: string, to: string, rule: string])[] = [
  ['core/src/net/a.ts', 'core/src/plan/index.ts', 'net'],
  ['core/src/plan/b.ts', 'core/src/routes/index.ts', 'plan'],
  ['core/src/vigil/c.ts', 'core/src/net/index.ts', 'vigil'],
  ['core/src/host/d.ts', 'server/src/store/store.ts', 'host'],
  ['contract/src/e.ts', 'server/src/store/store.ts', 'contract'],
  ['practice/src/f.ts', 'wire/src/engine/engine.ts', 'practice'],
  ['server/src/store/g.ts', 'server/src/http/api.ts', 'store'],
  ['wire/src/engine/h.ts', 'wire/src/carriers/linux/libc.ts', 'engine'],
  ['wire/src/owner/n.ts', 'server/src/service/door.ts', 'owner'],
  ['server/src/service/o.ts', 'wire/src/engine/engine.ts', 'wire-by-its-owner'],
  ['threads/src/p.ts', 'wire/src/owner/index.ts', 'threads'],
  ['server/src/service/i.ts', 'server/src/http/api.ts', 'service'],
  ['handover/src/u.ts', 'wire/src/owner/index.ts', 'handover'],
  ['server/src/packages/v.ts', 'server/src/service/door.ts', 'packages'],
  ['server/src/http/j.ts', 'core/src/plan/model.ts', 'core-by-the-front-door'],
  ['app/src/features/plan/k.ts', 'app/src/data/http.ts', 'features-do-not-fetch'],
  ['app/src/features/plan/q.ts', 'app/src/features/calls/inside.ts', 'feature-by-its-door'],
  ['app/src/features/plan/r.ts', 'app/src/app/job.tsx', 'routes-lead-nowhere-else'],
  ['app/src/parts/l.ts', 'app/src/data/index.ts', 'parts'],
  ['core/src/plan/s.ts', 'language/src/index.ts', 'plan'],
  ['wire/src/kept/t.ts', 'language/src/index.ts', 'kept'],
  ['app/src/data/m.ts', 'server/src/service/door.ts', 'app'],
];

test('each forbidden import is found, by its own rule', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ipsonomo-imports-'));
  const write = (file: string, text: string) => {
    mkdirSync(dirname(join(folder, file)), { recursive: true });
    writeFileSync(join(folder, file), text);
  };
  try {
    for (const file of [TABLE, 'tsconfig.base.json']) cpSync(join(ROOT, file), join(folder, file));
    symlinkSync(join(ROOT, 'node_modules'), join(folder, 'node_modules'));
    for (const [, to] of PLANTED) write(to, 'export const there = 1;\n');
    for (const [from, to] of PLANTED) {
      const up = '../'.repeat(from.split('/').length - 1);
      write(
        from,
        `import { there } from '${up}${to.replace(/\.ts$/, '')}';\nexport const here = there;\n`,
      );
    }
    const { summary } = cruised(folder);
    const found = new Set(summary.violations.map(({ from, rule }) => `${from} ${rule.name}`));
    expect(PLANTED.filter(([from, , rule]) => !found.has(`${from} ${rule}`))).toEqual([]);
  } finally {
    rmSync(folder, { recursive: true });
  }
}, 60_000);

interface Cruised {
  readonly summary: {
    readonly violations: readonly {
      readonly from: string;
      readonly rule: { readonly name: string };
    }[];
  };
}

/** It ends with a number that is not 0 where it found anything, and tells all the same. */
function cruised(folder: string): Cruised {
  const program = join(ROOT, 'node_modules/dependency-cruiser/bin/dependency-cruise.mjs');
  const args = [program, '--config', TABLE, '--output-type', 'json'];
  const rooms = WORKSPACES.map((room) => `${room}/src`);
  const out = execFileSync(process.execPath, [...args, ...rooms], { cwd: folder });
  return JSON.parse(out.toString()) as Cruised;
}
