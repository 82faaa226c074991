/**
 * A deeper look: each move worth considering is made, then the at-once way is followed to the end, over the tree of answers;
 * the move with the least expected cost wins. One exact step of policy improvement, so never worse than the at-once way
 * but for the branches closed early.
 */
import { moveAtOnce, payingTests, testValues } from './atOnce.ts';
import { after, costOfFollowing, type FollowLimits } from './follow.ts';
import { mass, type DecisionModel, type Move, type Standing } from './model.ts';
import { planRepairs } from './plan.ts';

/** How many moves are compared, and how far each is followed. */
export interface RefineOptions {
  /** Tests and repairs compared, best of the first look first. */
  readonly tests: number;
  readonly repairs: number;
  /** Tests the way is followed with afterwards: the likeliest to pay, seen from here. */
  readonly followed: number;
  /** Branches lighter than this share of the standing are closed with the plan of repairs. */
  readonly leastShare: number;
  /** Standings each move may look at. */
  readonly standings: number;
}

/** Values of ours: about 100 ms on the whole pack (bench/diagnosis). */
export const usualRefinement: RefineOptions = { tests: 4, repairs: 1, followed: 14, leastShare: 0.01, standings: 60 };

/** A move and what it costs to the end. */
export interface RefinedMove {
  readonly move: Move;
  /** Expected cost to the end from here by this move. */
  readonly cost: number;
}

/** Moves with their cost to the end, cheapest first; ties keep the first look's order. */
export function refinedMoves(model: DecisionModel, at: Standing, options: RefineOptions = usualRefinement): RefinedMove[] {
  const plan = planRepairs(model, at.probabilities, at.stage, at.repairsDone);
  const values = testValues(model, at, plan);
  const byWorth = [...values].sort((a, b) => b.rate - a.rate || a.index - b.index);
  const paying = payingTests(values);
  // A test that doesn't pay alone may pay together with another: the nearest misses are looked at too.
  const near = byWorth.filter(({ weight, saves }) => saves <= weight && saves > weight * 0.5);
  const moves: Move[] = [...paying, ...near].slice(0, options.tests).map(({ index }) => ({ kind: 'test', index }));
  for (const index of plan.sequence.slice(0, options.repairs)) moves.push({ kind: 'repair', index });
  if (moves.length === 0 || plan.sequence.length === 0) moves.push({ kind: 'give-up' });
  const [only] = moves;
  if (only && moves.length === 1) return [{ move: only, cost: costOf(model, at, only, options) }];
  const kept = new Set([
    ...byWorth.slice(0, options.followed).map(({ index }) => index),
    ...moves.flatMap((move) => (move.kind === 'test' ? [move.index] : [])),
  ]);
  const left = new Set(model.tests.flatMap((_, index) => (kept.has(index) ? [] : [index])));
  const followed: Standing = { ...at, testsDone: new Set([...at.testsDone, ...left]) };
  return moves.map((move) => ({ move, cost: costOf(model, followed, move, options) })).sort((a, b) => a.cost - b.cost);
}

function costOf(model: DecisionModel, at: Standing, move: Move, options: RefineOptions): number {
  const limits: FollowLimits = { leastMass: mass(at.probabilities) * options.leastShare, budget: { left: options.standings } };
  const { paid, next } = after(model, at, move);
  // Heavy branches first, so that a spent budget closes the light ones.
  const ordered = [...next].sort((a, b) => mass(b.probabilities) - mass(a.probabilities));
  return ordered.reduce((sum, one) => sum + costOfFollowing(model, one, moveAtOnce, limits), paid);
}

/** The best move after one step of policy improvement over the at-once policy; giving up where there is nothing else. */
export function refinedMove(model: DecisionModel, at: Standing, options: RefineOptions = usualRefinement): Move {
  return refinedMoves(model, at, options)[0]?.move ?? { kind: 'give-up' };
}
