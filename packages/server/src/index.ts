export { createApp, version, type AppParts } from './app.ts';
export { ConfigRefused, readConfig, type Config } from './config.ts';
export { openStore } from './open.ts';
export { rebuildCards } from './jobs/jobs.ts';
export type { Store } from './store.ts';
