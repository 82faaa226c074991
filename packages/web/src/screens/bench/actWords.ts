/** What a walk asks for, in words: one line an act. */
import { inputStandsVolts, type Act } from '@veglia/core';
import { useI18n } from 'vue-i18n';
import type { Names } from '../../names.ts';

export function useActWords(names: Names): { act: (act: Act) => string; left: (id: string) => string } {
  const { t } = useI18n();
  /** As `stillOut` writes them. */
  const left = (id: string): string => {
    const [kind, ...places] = id.split(' ');
    if (kind === 'bridge') return t('bench.left.bridge', { from: names.place(places[0] ?? ''), to: names.place(places[1] ?? '') });
    if (kind === 'tape') return t('bench.left.tape', { what: names.place(places[0] ?? '') });
    // A place of the pack has a name; what is printed on a board is its own.
    if (kind === 'part' || kind === 'link') {
      const name = places.join(' ');
      return t(`bench.left.${kind}`, { what: /^[a-z-]+$/.test(name) ? names.place(name) : name });
    }
    if (kind === 'clip' || kind === 'wires' || kind === 'clock-stop' || kind === 'chip-off')
      return t(`bench.left.${kind}`, { what: places.join(' ') });
    return names.place(id);
  };
  const act = (one: Act): string => {
    switch (one.kind) {
      case 'open':
        return t('bench.act.open', { stage: names.stage(one.stage) });
      case 'pull':
      case 'restore':
      case 'tape':
      case 'untape':
        return t(`bench.act.${one.kind}`, { what: names.place(one.id) });
      case 'bridge': {
        const said = t(one.level === 'unknown' ? 'bench.act.bridge-either' : 'bench.act.bridge', {
          from: names.place(one.from),
          to: names.place(one.to),
          ohms: one.ohms,
          seconds: one.seconds,
        });
        const above = { volts: inputStandsVolts, from: names.place(one.above?.from ?? ''), ohms: one.above?.ohms ?? 0 };
        return one.above ? `${said} ${t('bench.act.bridge-above', above)}` : said;
      }
      case 'unbridge':
        return t('bench.act.unbridge', { from: names.place(one.from), to: names.place(one.to) });
      case 'verify':
        return t('bench.act.verify', { where: one.points.map((point) => names.place(point)).join(', ') });
      case 'plug-in':
        return t(one.stillOut.length > 0 ? 'bench.act.plug-in-with' : 'bench.act.plug-in', {
          left: one.stillOut.map(left).join(', '),
        });
      default:
        return t(`bench.act.${one.kind}`);
    }
  };
  return { act, left };
}
