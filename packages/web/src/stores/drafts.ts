/** What is being typed, kept as it is typed: a reload, a closed tab, a server that is away lose nothing. */
import { local } from './local.ts';

export async function keepDraft(name: string, content: unknown): Promise<void> {
  await (await local()).put('drafts', { name, at: new Date().toISOString(), content: JSON.parse(JSON.stringify(content)) as unknown });
}

export async function readDraft(name: string): Promise<{ at: string; content: unknown } | undefined> {
  return (await local()).get('drafts', name);
}

export async function dropDraft(name: string): Promise<void> {
  await (await local()).delete('drafts', name);
}
