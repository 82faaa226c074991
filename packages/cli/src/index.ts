export { exitCodes, main } from './main.ts';
