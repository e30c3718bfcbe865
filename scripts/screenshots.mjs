// npm run screenshots: the pictures in docs/screenshots, made anew from the demo data.
import { runWithDatabase } from './lib/with-database.mjs';

process.exit(
  await runWithDatabase('screenshots', 'e2e/screenshots.ts', ['chromium-headless-shell']),
);
