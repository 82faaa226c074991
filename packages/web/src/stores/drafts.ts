/**
 * What is being typed, kept as it is typed: a reload, a closed tab, a server that is away lose nothing. A draft belongs to the tab that
 * holds it (a Web Lock of its name, let go when the tab ends), so that two tabs never write over each other.
 */
import { local } from './local.ts';

export interface Draft {
  readonly name: string;
  readonly at: string;
  readonly content: unknown;
}

export async function keepDraft(name: string, content: unknown): Promise<void> {
  await (await local()).put('drafts', { name, at: new Date().toISOString(), content: JSON.parse(JSON.stringify(content)) as unknown });
}

/** Those whose name begins so, newest first. */
export async function draftsOf(beginning: string): Promise<Draft[]> {
  const all = await (await local()).getAll('drafts');
  return all.filter(({ name }) => name.startsWith(beginning)).sort((a, b) => (a.at < b.at ? 1 : -1));
}

export async function dropDraft(name: string): Promise<void> {
  await (await local()).delete('drafts', name);
}

/** The way to let go of it, or undefined where another tab has it. */
export function holdDraft(name: string): Promise<(() => void) | undefined> {
  return new Promise((resolve, reject) => {
    navigator.locks
      .request(`veglia-draft-${name}`, { ifAvailable: true }, (lock) => {
        if (!lock) return resolve(undefined);
        return new Promise<void>((letGo) => resolve(letGo));
      })
      .catch(reject);
  });
}
