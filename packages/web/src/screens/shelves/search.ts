/** Finding a set by the code on its label, or without a server by its number, name, serial or family; and rows of a list. */
import type { JobCard } from '@veglia/contract';

const uuid = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/i;

/** The job that a scanned code leads to: an address that ends in one, or a bare id; undefined for anything else. */
export function jobOfCode(text: string): string | undefined {
  const typed = text.trim();
  const found = uuid.exec(typed)?.[0];
  if (found === undefined) return undefined;
  return typed === found || new RegExp(`/jobs/${found}/?$`, 'i').test(typed) ? found.toLowerCase() : undefined;
}

/** Every word has to be found somewhere; a number alone is a job's number first. */
export function searchCards(cards: readonly JobCard[], text: string, familyName: (id: string) => string): JobCard[] {
  const wanted = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return [...cards];
  const exact = cards.filter((card) => String(card.number) === text.trim());
  if (exact.length > 0) return exact;
  return cards.filter((card) => {
    const hay = [card.number, card.title, card.customerName, card.serial, card.family, card.family && familyName(card.family), card.shelf]
      .filter((part) => part !== null && part !== '')
      .join(' ')
      .toLowerCase();
    return wanted.every((word) => hay.includes(word));
  });
}

/** A line of the list: a shelf's name with its sets counted, or a set. */
export type ListRow =
  | { readonly kind: 'place'; readonly key: string; readonly place: string; readonly n: number }
  | { readonly kind: 'card'; readonly key: string; readonly place: string; readonly card: JobCard };

/** Cards in the order given; under the names of their shelves where they are sorted by them. */
export function rowsOf(cards: readonly JobCard[], byShelf: boolean): ListRow[] {
  const counts = new Map<string, number>();
  for (const { shelf } of cards) counts.set(shelf ?? '', (counts.get(shelf ?? '') ?? 0) + 1);
  const rows: ListRow[] = [];
  let before: string | undefined;
  for (const card of cards) {
    const place = card.shelf ?? '';
    if (byShelf && place !== before) rows.push({ kind: 'place', key: `place ${place}`, place, n: counts.get(place) ?? 0 });
    before = place;
    rows.push({ kind: 'card', key: card.jobId, place, card });
  }
  return rows;
}
