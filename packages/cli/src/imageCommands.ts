/** `veglia image …`: files by themselves, and the stock of a running server. */
import { randomUUID } from 'node:crypto';
import { imageSources, memories, memoryAreas, parseBytes, type FitAim } from '@veglia/core';
import { InvalidArgumentError, Option, type Command } from 'commander';
import { imageCombine, imageCompare, imageIdentify, imageRead, refused } from './image.ts';
import { positive } from './options.ts';
import { factsOf, imageAdd, imageExport, imageFit, type FactOptions } from './imageServer.ts';

/** Adds them to the command. */
export function imageCommands(
  veglia: Command,
  { print, err }: { readonly print: (value: unknown) => void; readonly err: (text: string) => void },
): void {
  const image = veglia.command('image').description('memory images: raw, Intel HEX, S-record, gzip of each');
  image
    .command('read')
    .description('what a file is: format, size, SHA-256, gaps')
    .argument('<file>', 'image file')
    .option('--to <file>', 'write its bytes there; never over a file')
    .action(async (file: string, { to }: { to?: string }) => print(await imageRead(file, to)));
  image
    .command('compare')
    .description('where two images differ, and which way their bits went')
    .argument('<first>', 'image file')
    .argument('<second>', 'image file')
    .action(async (first: string, second: string) => print(await imageCompare(first, second)));
  image
    .command('identify')
    .description('what an image holds: erased, text, program and packed parts, what is recognised, versions')
    .argument('<file>', 'image file')
    .action(async (file: string) => print(await imageIdentify(file)));
  image
    .command('combine')
    .alias('majority')
    .description('several reads of a failing chip made one, bit by bit, and how sure that is')
    .argument('<to>', 'file to write; never over a file')
    .argument('<reads...>', 'three or more reads')
    .action(async (to: string, reads: string[]) => print(await imageCombine(to, reads)));
  const server = (): Option =>
    new Option('--server <address>', 'a running server').makeOptionMandatory().argParser((value: string) => {
      if (!URL.canParse(value)) throw new InvalidArgumentError('an address such as http://127.0.0.1:8720');
      return value;
    });
  /** What an image is, or has to fit. */
  const facts = (command: Command): Command =>
    command
      .addOption(new Option('--memory <kind>', 'kind of memory').choices(memories).default('spi-nor'))
      .addOption(new Option('--area <area>', 'which part of it').choices(memoryAreas).default('whole'))
      .option('--board <number>', 'number printed on the board')
      .option('--revision <text>', 'its revision')
      .option('--panel <number>', 'number on the panel’s label')
      .option('--resolution <size>', 'pixels of the panel: 1920x1080')
      .option('--region <text>', 'region')
      .addOption(server());
  facts(image.command('add').argument('<file>', 'image file'))
    .description('send an image file to a server’s stock; the same id again goes on where it was broken off')
    .requiredOption('--by <name>', 'who adds it, as the server knows them')
    .requiredOption('--name <text>', 'what it is called')
    .addOption(new Option('--source <source>', 'where it comes from').choices(imageSources).default('dealer'))
    .option('--chip <marking>', 'marking on the chip')
    .option('--companion <name>', 'the memory whose content goes with it')
    .option('--id <uuid>', 'id of an upload that was broken off')
    .action(async (file: string, options: FactOptions & { by: string; server: string; id?: string }) => {
      const { by, id = randomUUID(), server: address } = options;
      err(`id ${id}\n`);
      print(await imageAdd(file, { server: address, by, id, facts: factsOf(options) }));
    });
  image
    .command('export')
    .description('fetch an image from a server’s stock; its SHA-256 is checked, and what was broken off is gone on with')
    .argument('<image>', 'its id, or the beginning of its SHA-256, CRC-32 or MD5')
    .argument('<file>', 'file to write; never over a file')
    .addOption(server())
    .action(async (which: string, file: string, { server: address }: { server: string }) => print(await imageExport(which, file, address)));
  facts(image.command('fit'))
    .description('which of the newest 200 images of a server’s stock fit a set, and why')
    .option('--size <size>', 'size of the chip: 4 MiB, 32 Mbit')
    .option('--pairs <count>', 'signal pairs to the panel, clocks included', positive)
    .action(async (options: FactOptions & { server: string; size?: string; pairs?: number }) => {
      const { size, pairs, server: address } = options;
      const bytes = size === undefined ? undefined : parseBytes(size);
      if (size !== undefined && bytes === undefined) throw refused('--size', 'a size with its unit: 4 MiB', size);
      print(await imageFit({ ...(factsOf(options) as Omit<FitAim, 'companions'>), bytes, pairs, companions: [] }, address));
    });
}
