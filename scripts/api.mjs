// npm run api: writes docs/api/openapi.json from the contract. With --check it says whether that file is as it has to be.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Validator } from '@seriousme/openapi-schema-validator';
import { build } from 'esbuild';
import ts from 'typescript';
import { CORE_DOORS } from './lib/core-doors.mjs';
import { schemasOf } from './lib/schema-of-types.mjs';
import { LOCAL, ROOT } from './lib/steps.mjs';

const FILE = join(ROOT, 'docs/api/openapi.json');

async function openApi() {
  const outfile = join(LOCAL, 'openapi.cjs');
  await build({
    ...{ entryPoints: [join(ROOT, 'contract/src/openapi.ts')], outfile, bundle: true },
    ...{ platform: 'node', format: 'cjs', absWorkingDir: ROOT, logLevel: 'error' },
    alias: CORE_DOORS,
  });
  const { default: contract } = await import(outfile);
  const { config } = ts.readConfigFile(join(ROOT, 'tsconfig.base.json'), ts.sys.readFile);
  const { options } = ts.parseJsonConfigFileContent(config, ts.sys, ROOT);
  return contract.openApiOf(schemasOf(join(ROOT, 'contract/src/views.ts'), 'Views', options));
}

const document = await openApi();
const { valid, errors } = await new Validator().validate(structuredClone(document));
if (!valid) {
  console.error('The document is no OpenAPI:', JSON.stringify(errors, null, 2));
  process.exit(1);
}
const text = `${JSON.stringify(document, null, 2)}\n`;
if (!process.argv.includes('--check')) {
  mkdirSync(join(ROOT, 'docs/api'), { recursive: true });
  writeFileSync(FILE, text);
} else if (readFileSync(FILE, 'utf8') !== text) {
  console.error('docs/api/openapi.json is not what the contract says. Write it anew: npm run api');
  process.exit(1);
}
