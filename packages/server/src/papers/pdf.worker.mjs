/**
 * Makes PDFs apart from the server: a paper that takes too long is ended with its thread, and nobody else waits for it. Plain
 * JavaScript: a thread does not inherit what reads TypeScript. In: a pdfmake document definition. Out: { bytes } or { failed }.
 */
import { createRequire } from 'node:module';
import path from 'node:path';
import { parentPort } from 'node:worker_threads';

const require = createRequire(import.meta.url);
const pdfmake = require('pdfmake');
const fontFolder = path.join(path.dirname(require.resolve('pdfmake/package.json')), 'fonts', 'Roboto');
const face = (name) => path.join(fontFolder, `Roboto-${name}.ttf`);
pdfmake.setFonts({ Roboto: { normal: face('Regular'), bold: face('Medium'), italics: face('Italic'), bolditalics: face('MediumItalic') } });
// Customers' words stand in these papers: nothing in them may make the maker read a file or ask a server.
pdfmake.setLocalAccessPolicy((file) => path.resolve(file).startsWith(fontFolder));
pdfmake.setUrlAccessPolicy(() => false);

parentPort?.on('message', (definition) => {
  pdfmake
    .createPdf(definition)
    .getBuffer()
    .then(
      (bytes) => parentPort?.postMessage({ bytes }),
      (error) => parentPort?.postMessage({ failed: error instanceof Error ? error.message : String(error) }),
    );
});
