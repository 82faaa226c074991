/** A step on a memory as a line of the ledger. */
import { flashWords } from '@veglia/contract';
import { formatBytes, type BodyOf, type Entry, type FlashGate } from '@veglia/core';
import { shortHash, type Translate } from './titles.ts';

export interface FlashLine {
  readonly title: string;
  readonly detail?: string;
}

/** `entries` tell which memory the session is about. */
export function flashLine(t: Translate, { session, did }: BodyOf<'flash.step'>, entries: readonly Entry[]): FlashLine {
  const opened = entries
    .flatMap(({ body }) => (body.kind === 'flash.step' && body.session === session && body.did.step === 'opened' ? [body.did] : []))
    .at(-1);
  const name = opened?.name ?? '?';
  const area = 'area' in did && did.area !== undefined ? t(`flash.area.${did.area}`) : '';
  const line = (values: Record<string, string | number> = {}, key: string = did.step): FlashLine => ({
    title: t(`flash.entry.${key}`, { name, area, ...values }),
  });
  switch (did.step) {
    case 'opened':
      return line({ plan: t(`flash.plan.${did.plan}`) });
    case 'supply':
      return line({ io: did.ioVolts, programmer: did.programmerVolts });
    case 'entered':
      return line({ way: [t(`flash.way.${did.way}`), did.with ?? ''].filter(Boolean).join(', ') });
    case 'identified':
      return line({ result: [t(`flash.detected.${did.result}`), did.chip ?? ''].filter(Boolean).join(', ') });
    case 'read':
      return did.extent === 'whole' ? line({ size: formatBytes(did.bytes), hash: shortHash(did.sha256 ?? '') }) : line({}, 'sampled');
    case 'boot-config':
      return line({ which: t(`flash.boot.of.${did.of}`), values: [did.partition, did.bus, did.reset].join(' ') });
    case 'rebuilt':
      return line({ n: did.reads });
    case 'target':
      return line({ what: [did.board, did.revision, did.panel, did.resolution?.join(' × '), did.region].filter(Boolean).join(', ') });
    case 'chosen':
      return line({ hash: shortHash(did.sha256), fit: t(`flash.fit.${did.fit}`) });
    case 'blank':
      return line({ result: t(`flash.blankResult.${did.result}`) });
    case 'began':
      return line({ programmer: did.programmer }, `began-${did.work}`);
    case 'programmed':
      return line({ hash: shortHash(did.sha256) });
    case 'verified':
      return line({ result: t(`flash.verifyResult.${did.result}`) });
    case 'fitted':
      return { ...line({ from: did.from, to: did.to }), ...(did.differs === undefined ? {} : { detail: did.differs }) };
    case 'way-out':
      return line({ n: did.checked.length });
    case 'started':
      return line({ result: t(`flash.started.${did.result}`) });
    case 'setting':
      return line({ setting: did.name, to: did.from === undefined ? did.to : `${did.from} → ${did.to}` });
    case 'overrode':
      return { ...line({ gate: flashWords.en.gate[did.gate as FlashGate] }), detail: t(`flash.reason.${did.reason}`) };
    default:
      return line();
  }
}
