export { exitCodes, main, run, type Io } from './main.ts';
