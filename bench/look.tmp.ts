import { chromium, selectors } from 'playwright';
import { demoServer } from '../scripts/lib/demoServer.mjs';
import { pathToFileURL } from 'node:url';
selectors.setTestIdAttribute('data-test');
const server = await demoServer();
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.setDefaultTimeout(15000);
try { const { look } = await import(pathToFileURL('/tmp/look.mjs').href); await look(page, server.address); }
finally { await browser.close(); await server.stop(); }
