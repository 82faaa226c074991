import type { SmallModel } from '@veglia/simulators';

/** A model as plain JSON; see docs/formats.md. Costs in minor units; rows are P(outcome | fault). */
export function plainModel({ layoutId, symptom, faults, model, probabilities }: SmallModel): object {
  return {
    format: 'veglia-model',
    version: 2,
    layout: layoutId,
    symptom,
    faults: faults.map((id, index) => ({ id, probability: probabilities[index] ?? 0 })),
    stages: model.stageCost.map((cost, stage) => ({ stage, cost })),
    writeOff: model.writeOff,
    tests: model.tests.map(({ id, cost, stage, outcomes }) => ({ id, cost, stage, outcomes: outcomes.map((row) => [...row]) })),
    repairs: model.repairs.map(({ id, cost, stage, nuisance, cures }) => ({
      id,
      cost,
      stage,
      nuisance,
      cures: faults.map((_, index) => cures.find(({ hypothesis }) => hypothesis === index)?.chance ?? 0),
    })),
  };
}
