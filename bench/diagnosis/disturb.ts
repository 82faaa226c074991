/** A pack whose numbers are off: every likelihood and starting weight multiplied by a factor of its own within ±share. */
import type { CompiledPack } from '@veglia/core';
import { randomFrom, seedOf } from '@veglia/simulators';

export function disturbed(compiled: CompiledPack, share: number, seed: number): CompiledPack {
  const factor = (word: string): number => 1 + share * (2 * randomFrom(seedOf(seed, word))() - 1);
  const shaken = (probabilities: readonly number[], word: string): number[] => {
    const weights = probabilities.map((p, index) => p * factor(`${word}|${index}`));
    const total = weights.reduce((a, b) => a + b, 0);
    return weights.map((one) => one / total);
  };
  return {
    ...compiled,
    priors: new Map([...compiled.priors].map(([id, probabilities]) => [id, shaken(probabilities, `start|${id}`)])),
    symptomLikelihoods: (layoutId, faultId, family) =>
      shaken(compiled.symptomLikelihoods(layoutId, faultId, family), `symptom|${layoutId}|${faultId}`),
    outcomeLikelihoods: (test, block, layoutId, faultId, of) =>
      shaken(
        compiled.outcomeLikelihoods(test, block, layoutId, faultId, of),
        `${test.id}|${test.likelihood.indexOf(block)}|${faultId}|${of ?? ''}`,
      ),
  };
}
