export { bookOpponent, simulatedOpponent, type BookCase, type Opponent } from './opponent.ts';
export { play, type Play, type PlayOptions } from './play.ts';
export { atOnce, fixedList, information, randomOrder, refined, repairsOnly, settled, type Choice, type Way } from './ways.ts';
export { smallModel, type SmallModel } from './smallModel.ts';
