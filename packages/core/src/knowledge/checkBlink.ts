/** What the rows of a blink table say of each other and of the pack. */
import type { Problem } from '../problems.ts';
import type { BlinkCode, Pack } from './schema.ts';

/** `where` names a row by its place. The same code twice is refused: two rows for one light have no right answer. */
export function checkBlinkCodes(codes: readonly BlinkCode[], where: (index: number) => string, pack: Pack): Problem[] {
  const problems: Problem[] = [];
  const has = (list: readonly { id: string }[], id: string): boolean => list.some((one) => one.id === id);
  const shapes = new Set<string>();
  const ids = new Set<string>();
  codes.forEach((code, index) => {
    const at = where(index);
    const shape = `${code.groups.join('-') || 'no light'}|${code.colour ?? ''}|${code.after ?? ''}`;
    if (shapes.has(shape)) problems.push({ code: 'duplicate-id', where: at, value: shape });
    if (ids.has(code.id)) problems.push({ code: 'duplicate-id', where: at, value: code.id });
    shapes.add(shape);
    ids.add(code.id);
    for (const [suspect, strength] of Object.entries(code.suspects)) {
      if (!has(pack.faults, suspect) && !has(pack.assemblies, suspect)) {
        problems.push({ code: 'unknown-id', where: `${at}.suspects`, value: suspect, expected: 'assembly' });
      }
      if (pack.scale.likelihood[strength] === undefined) {
        problems.push({ code: 'word-unknown', where: `${at}.suspects.${suspect}`, value: strength, expected: 'likelihood' });
      }
    }
    if (code.firstCheck !== undefined && !has(pack.tests, code.firstCheck)) {
      problems.push({ code: 'unknown-id', where: `${at}.firstCheck`, value: code.firstCheck, expected: 'test' });
    }
  });
  return problems;
}
