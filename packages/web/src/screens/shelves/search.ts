/** Finding a set: by number, name, serial, family; or by the code on its label. */
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
