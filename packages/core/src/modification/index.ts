export { misleadingWires, readWires, type Wire } from './wires.ts';
