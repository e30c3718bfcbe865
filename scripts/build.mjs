import { buildApp, buildServer } from './lib/build.mjs';

buildServer();
buildApp();
