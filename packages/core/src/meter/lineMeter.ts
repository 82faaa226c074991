/**
 * A hand meter: what it shows comes as a line of text, over a serial cable or typed by a person. Its function is set by hand, so a line that
 * names another one than was asked for is said to be that.
 */
import { noWayThroughOhms, parseReading } from '../electrical/index.ts';
import { quantityOf, type Meter, type MeterFunction, type MeterIdentity, type MeterReading, type MeterTrouble } from './meter.ts';

/** Where lines come from; `undefined`: none will come any more. */
export interface LineSource {
  readonly name: string;
  /** The newest line from now on. */
  next(): Promise<string | undefined>;
  close(): Promise<void>;
}

/** "DC 12.34 V", "-0.412 VDC", "AC 230.1 V", "4.70 kOhm", "OL", "OL MOhm". */
export function parseHandLine(what: MeterFunction, line: string): MeterReading | MeterTrouble {
  const text = line.trim();
  const kind = /\bAC\b|VAC$|V~/i.test(text) ? 'ac' : /\bDC\b|VDC$/i.test(text) ? 'dc' : undefined;
  if ((kind === 'ac' && what !== 'ac-volts') || (kind === 'dc' && what === 'ac-volts'))
    return { kind: 'wrong-function', detail: text.slice(0, 80) };
  const bare = text
    .replace(/^(?:AC|DC)\s*|\s*(?:AC|DC)$/gi, '')
    .replace(/V(?:AC|DC|~)$/i, 'V')
    .trim();
  if (/^o[.]?l\b/i.test(bare)) {
    const unit = /v$/i.test(bare) ? 'volts' : /(?:ohm|ohms|Ω)$/i.test(bare) ? 'ohms' : undefined;
    return unit !== undefined && unit !== quantityOf(what)
      ? { kind: 'wrong-function', detail: text }
      : { kind: 'over-range', function: what };
  }
  const read = parseReading(bare);
  if (!read || Math.abs(read.value) >= noWayThroughOhms) return { kind: 'not-understood', detail: text.slice(0, 80) };
  if (read.unit !== undefined && read.unit !== quantityOf(what)) return { kind: 'wrong-function', detail: text.slice(0, 80) };
  return { kind: 'value', function: what, value: read.value };
}

/** A meter that sends lines. `later` resolves after that many milliseconds: a clock is the caller’s. */
export class LineMeter implements Meter {
  readonly #source: LineSource;
  readonly #timeoutMs: number;
  readonly #later: (ms: number) => Promise<void>;
  #before: Promise<unknown> = Promise.resolve();

  constructor(source: LineSource, timeoutMs: number, later: (ms: number) => Promise<void>) {
    this.#source = source;
    this.#timeoutMs = timeoutMs;
    this.#later = later;
  }

  identify(): Promise<MeterIdentity | MeterTrouble> {
    return Promise.resolve({ kind: 'identity', maker: '', model: this.#source.name });
  }

  measure(what: MeterFunction): Promise<MeterReading | MeterTrouble> {
    const asked = this.#before.then(async (): Promise<MeterReading | MeterTrouble> => {
      const late = { kind: 'timed-out', detail: '' } as const;
      const line = await Promise.race([this.#source.next(), this.#later(this.#timeoutMs).then(() => late)]);
      if (line === undefined) return { kind: 'broken-off', detail: '' };
      return typeof line === 'string' ? parseHandLine(what, line) : line;
    });
    this.#before = asked.catch(() => undefined);
    return asked;
  }

  close(): Promise<void> {
    return this.#source.close();
  }
}
