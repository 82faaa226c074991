/** Lines for the person who started a script; a failure ends it with a reason and no stack. */
export const say = (line) => console.log(line);

export class Stop extends Error {}

export function stop(message) {
  throw new Stop(message);
}

/** Runs a script's main and turns a Stop into a sentence and an exit code. */
export async function runMain(main) {
  try {
    process.exitCode = (await main()) ?? 0;
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    process.exitCode = 1;
  }
}
