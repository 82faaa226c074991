/** Who is heard, and whether power is told to start. */
import type { Body } from '../body.ts';
import { memoryNow, processorNow } from '../stages.ts';
import type { Standby } from './standby.ts';
import type { Surroundings } from './surroundings.ts';

/** Which lines the processor drives. */
export interface Command {
  readonly keysIn: boolean;
  readonly answersKey: boolean;
  readonly answersRemote: boolean;
  readonly processor: { readonly runs: boolean };
  readonly setting: Body['setting'];
  readonly memory: 'good' | 'bad' | 'dead';
  /** PS_ON is driven from outside. */
  readonly forced: boolean;
  readonly psOnByMain: boolean;
  /** The light comes by itself with main away. */
  readonly defaultsOn: boolean;
  readonly psOn: boolean;
}

/** What the processor commands with what it is given. */
export function commandOf(around: Surroundings, { awake, hungNow, standbyIdle, standbyStart, link, bulk }: Standby): Command {
  const { body, bench, ask, board, mainNode, has, out, linked, trait } = around;
  const keysIn = !out('keys') && linked('harness.keys');
  const keyHeard = keysIn && body.keys.contact && body.keys.stuck === 'no';
  const remoteHeard = body.keys.eye && (body.remote.works || bench.supply.has('known-remote')) && (body.keys.stuck !== 'blocks' || !keysIn);
  const processor = processorNow(body, bench, mainNode);
  const listens = awake && !hungNow && (processor.runs || body.main.processor.psOn || body.main.processor.state === 'bond');
  const asked = ask === 'key' ? keyHeard : ask === 'remote' ? remoteHeard : ask === 'any' && (keyHeard || remoteHeard);
  const forced = bench.bridged.some((pair) => pair.includes('ps-on')) && standbyIdle > 0.3;
  const memory = memoryNow(body, bench, mainNode);
  const psOnByMain =
    listens && asked && body.main.givesPsOn && linked('harness.power-main', 'start') && standbyStart >= 0.88 && memory !== 'dead';
  const defaultsOn = !link && has('strips') && trait('light.defaults-on') && bulk && standbyIdle > 0.5;
  return {
    keysIn,
    answersKey: listens && keyHeard,
    answersRemote: listens && remoteHeard,
    processor,
    setting: bench.reset && body.setting !== 'turned' ? 'right' : body.setting,
    memory,
    forced,
    psOnByMain,
    defaultsOn,
    psOn: psOnByMain || forced || defaultsOn || board !== undefined,
  };
}
