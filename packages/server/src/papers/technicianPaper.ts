/** All that was seen and measured on a job, in order, for whoever opens the set next. English: it stays in the shop. */
import { readingLines } from '@veglia/contract';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { mm, type PaperFacts } from './papers.ts';

/** A4. */
export function technicianSheet({ job, entries, compiled }: PaperFacts): TDocumentDefinitions {
  const lines = readingLines(entries, compiled);
  const title = `Technician’s sheet: job ${job.number}`;
  return {
    pageSize: 'A4',
    pageMargins: [mm(18), mm(16), mm(18), mm(16)],
    defaultStyle: { font: 'Roboto', fontSize: 10, lineHeight: 1.15 },
    info: { title },
    content: [
      { text: title, fontSize: 16, bold: true },
      { text: [job.plate.maker, job.plate.model, job.plate.serial].filter((one) => one !== '').join(' '), margin: [0, 0, 0, 8] },
      lines.length === 0
        ? { text: 'Nothing has been recorded yet.' }
        : {
            layout: 'lightHorizontalLines',
            table: {
              headerRows: 1,
              widths: ['auto', 'auto', '*'],
              body: [
                ['No.', 'UTC', 'Entry'].map((text): Content => ({ text, bold: true })),
                ...lines.map(({ seq, at, text }): Content[] => [
                  { text: String(seq) },
                  { text: at.slice(0, 16).replace('T', ' ') },
                  { text },
                ]),
              ],
            },
          },
    ],
  };
}
