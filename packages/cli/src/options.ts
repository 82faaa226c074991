/** What options of the command have to be. */
import { InvalidArgumentError } from 'commander';

export const wholeNumber = (text: string): number => {
  const value = Number(text);
  if (!Number.isInteger(value)) throw new InvalidArgumentError('a whole number');
  return value;
};

export const shareOfOne = (text: string): number => {
  const value = Number(text);
  if (!(value >= 0 && value <= 1)) throw new InvalidArgumentError('a number from 0 to 1');
  return value;
};

export const positive = (text: string): number => {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1) throw new InvalidArgumentError('a whole number from 1');
  return value;
};
