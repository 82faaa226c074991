/** Symptoms by what people say: names, the usual saying, and all other sayings of the pack. */
import type { Pack } from '@veglia/core';
import Fuse from 'fuse.js';

export interface SymptomSearch {
  /** Ids, best first; all of them in the pack's order where nothing was typed. */
  readonly find: (typed: string) => string[];
}

export function symptomSearch(symptoms: Pack['symptoms']): SymptomSearch {
  const rows = symptoms.map(({ id, name, said, also }) => ({ id, name: name.en, said: said.en, also: also ?? [] }));
  const fuse = new Fuse(rows, {
    keys: [
      { name: 'name', weight: 2 },
      { name: 'said', weight: 1.5 },
      { name: 'also', weight: 2 },
    ],
    includeScore: true,
    ignoreLocation: true,
    // Looser than this finds "fan" in "faint".
    threshold: 0.35,
  });
  return {
    find(typed) {
      const text = typed.trim().toLowerCase().replaceAll("'", '’');
      if (text === '') return rows.map(({ id }) => id);
      const found = fuse.search(text).map(({ item }) => item.id);
      // Words in any order: what holds all of them stands before what is only like it.
      const words = text.split(/\s+/);
      const holdsAll = rows
        .filter(({ name, said, also }) =>
          [name, said, ...also].some((phrase) => words.every((word) => phrase.toLowerCase().includes(word))),
        )
        .map(({ id }) => id);
      return [...new Set([...holdsAll.filter((id) => found[0] === id), ...holdsAll, ...found])];
    },
  };
}
