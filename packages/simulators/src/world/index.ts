export { drawWorldCase, gamma, worldErrors, worlds, type World, type WorldCase } from './world.ts';
