/** A document definition into the bytes of a PDF. Fonts come from the package that makes it; nothing is fetched. */
import { createRequire } from 'node:module';
import path from 'node:path';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';

interface Maker {
  setFonts(fonts: Record<string, Record<string, string>>): void;
  setLocalAccessPolicy(allowed: (file: string) => boolean): void;
  setUrlAccessPolicy(allowed: (url: string) => boolean): void;
  createPdf(definition: TDocumentDefinitions): { getBuffer(): Promise<Buffer> };
}

const require = createRequire(import.meta.url);
const pdfmake = require('pdfmake') as Maker;
const fontFolder = path.join(path.dirname(require.resolve('pdfmake/package.json')), 'fonts', 'Roboto');
const face = (name: string): string => path.join(fontFolder, `Roboto-${name}.ttf`);
pdfmake.setFonts({ Roboto: { normal: face('Regular'), bold: face('Medium'), italics: face('Italic'), bolditalics: face('MediumItalic') } });
// Customers' words stand in these papers: nothing in them may make the maker read a file or ask a server.
pdfmake.setLocalAccessPolicy((file) => path.resolve(file).startsWith(fontFolder));
pdfmake.setUrlAccessPolicy(() => false);

export function pdfOf(definition: TDocumentDefinitions): Promise<Buffer> {
  return pdfmake.createPdf(definition).getBuffer();
}
