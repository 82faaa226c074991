/** Everything that was seen and measured on a job, as plain lines: for a technician’s sheet, and for a question to a colleague. */
import type { BodyOf, CaseFold, CompiledPack, Entry } from '@veglia/core';
import { liveEntries, notInBook } from '@veglia/core';
import { codeInWords } from './blink/words.ts';
import { findingSentence } from './problems.ts';
import { instrumentWords, say, words } from './words/index.ts';

const units = { volts: 'V', ohms: 'Ω', amperes: 'A', celsius: '°C' } as const;

interface Named {
  readonly id: string;
  readonly name: { readonly en: string };
}
const named = (all: readonly Named[], id: string): string => all.find((one) => one.id === id)?.name.en ?? id;

/** What an entry adds to the sheet; nothing that a person said or wrote in their own words is ever in it. */
function lineOf(body: Entry['body'], compiled: CompiledPack): string | undefined {
  const { pack } = compiled;
  const assembly = (id: string): string => named(pack.assemblies, id);
  const place = (id: string): string => {
    const known = pack.assemblies.find((one) => one.id === id);
    return known?.name.en ?? pack.layouts.find(({ points }) => points[id])?.points[id]?.name?.en ?? id;
  };
  switch (body.kind) {
    case 'symptom.reported':
      return `${say(body.seen ? 'Confirmed: {what}' : 'Reported: {what}', { what: body.symptoms.map((id) => named(pack.symptoms, id)).join(', ') })}`;
    case 'blink.read':
      return `Blink code: ${codeInWords(body, words.en)}, ${body.cycles} matching cycles${body.out === undefined ? '' : `, ${assembly(body.out)} disconnected`}`;
    case 'test.answered': {
      const test = compiled.tests.get(compiled.currentId(body.test));
      const outcome = body.outcome === 'cant-tell' ? "can't tell" : body.outcome === 'not-possible' ? 'N/A on this set' : undefined;
      const answer = outcome ?? named(test?.observe.outcomes ?? [], body.outcome);
      return `${test?.name.en ?? body.test}${body.of === undefined ? '' : ` (${assembly(body.of)})`}: ${answer}${body.sure === 'think-so' ? ' (not certain)' : ''}`;
    }
    case 'reading.taken':
      return `${body.pin ?? place(body.at)}: ${body.value} ${units[body.quantity]} (${body.state})`;
    case 'instrument.used': {
      const { name = body.instrument } = instrumentWords.en.instrument[body.instrument] ?? {};
      return `${name}: ${body.findings.map((one) => findingSentence(one)).join(' ')}`;
    }
    case 'heat.round':
      return `${body.way === 'warm' ? 'Warmed' : 'Chilled'} all but ${place(body.left)} to ${body.toCelsius} °C: ${body.result === 'heals' ? 'symptom clears' : body.result === 'stays' ? 'symptom persists' : "can't tell"}`;
    case 'stimulus.tried':
      return `${body.way} at ${place(body.at)}: ${body.effect}`;
    case 'board.found':
      return `${assembly(body.assembly)}: number ${body.number}`;
    case 'repair.done':
      return `${named(pack.repairs, compiled.currentId(body.repair))}: ${resultWords[body.result]}`;
    case 'part.fitted':
      return `Part fitted, ${assembly(body.assembly)}: ${body.number}`;
    case 'start.timed':
      return `Start${body.cold ? ' from cold' : ''}: ${body.started ? `came on${body.seconds === undefined ? '' : ` after ${body.seconds} s`}` : 'failed'}`;
    case 'proof.soaked':
      return `Soak of ${body.minutes} min: ${body.result}`;
    default:
      return undefined;
  }
}
const resultWords: Record<BodyOf<'repair.done'>['result'], string> = {
  cured: 'symptom clears',
  unchanged: 'symptom persists',
  changed: 'symptom changes',
  'not-tried': 'not tried',
};

/** A line of the sheet with its time, UTC. */
export interface ReadingLine {
  readonly at: string;
  readonly seq: number;
  readonly text: string;
}
/** In the order of the ledger; what was undone is left out. */
export function readingLines(entries: readonly Entry[], compiled: CompiledPack): ReadingLine[] {
  return liveEntries(entries).flatMap(({ at, seq, body }) => {
    const text = lineOf(body, compiled);
    return text === undefined ? [] : [{ at, seq, text }];
  });
}

/** What a request for help is made from. */
export interface HelpFacts {
  readonly entries: readonly Entry[];
  readonly compiled: CompiledPack;
  readonly fold: Pick<CaseFold, 'assemblies' | 'set'>;
  /** As on the rating plate; never its serial number. */
  readonly maker: string;
  readonly model: string;
}

/** A question to a colleague as text: the set, the symptom, what was tested and read, what is suspected. No customer, no serial number, no free text. */
export function helpRequest({ entries, compiled, fold, maker, model }: HelpFacts): string {
  const opened = liveEntries(entries).find(({ body }) => body.kind === 'job.opened')?.body;
  const set = opened?.kind === 'job.opened' ? opened.set : undefined;
  const layout = compiled.layouts.get(fold.set.layout ?? '')?.name.en;
  const about = [
    `Set: ${[maker, model].filter(Boolean).join(' ') || 'unknown'}${set?.sizeInch === undefined ? '' : `, ${set.sizeInch} inch`}${set?.ageYears === undefined ? '' : `, about ${set.ageYears} years old`}`,
    ...(layout === undefined ? [] : [`Layout: ${layout}`]),
  ];
  const suspects = fold.assemblies
    .filter(({ id, verdict }) => id !== notInBook && verdict !== 'cleared')
    .slice(0, 4)
    .map(
      ({ id, probability, verdict }) =>
        `${named(compiled.pack.assemblies, id)} ${Math.round(probability * 100)} % (${words.en.verdict[verdict]})`,
    );
  const out = fold.assemblies
    .filter(({ verdict, ruledOutBy }) => verdict === 'cleared' && ruledOutBy !== undefined)
    .map(({ id }) => named(compiled.pack.assemblies, id));
  return [
    ...about,
    '',
    'What was seen and measured:',
    ...readingLines(entries, compiled).map(({ text }) => `- ${text}`),
    '',
    `Suspects: ${suspects.join('; ') || 'none'}`,
    `Ruled out: ${out.join(', ') || 'nothing yet'}`,
    '',
    'What would you look at next?',
    '',
  ].join('\n');
}
