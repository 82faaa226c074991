/** What a recognised print says of a set: proposals only, each taken by a person. */
export interface PlateProposal {
  readonly field: 'maker' | 'model' | 'serial' | 'version';
  readonly value: string;
}

export interface KnownPlates {
  readonly makers: readonly string[];
  readonly models: readonly string[];
}

/** Letters that print and recognition take for each other; compared after both are folded to one. */
const folded = (text: string): string =>
  text
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '')
    .replaceAll('O', '0')
    .replace(/[IL]/g, '1')
    .replaceAll('S', '5')
    .replaceAll('B', '8');

const labelled: readonly [PlateProposal['field'], RegExp][] = [
  ['serial', /\b(?:serial(?:\s*(?:no|number|nr))?|s\s*\/\s*n)\s*[.:#]*\s*([A-Z0-9][A-Z0-9-]{3,})/i],
  ['model', /\b(?:model(?:\s*(?:no|code|name))?|type)\s*[.:#]*\s*([A-Z0-9][A-Z0-9 -]{1,}[A-Z0-9])/i],
  ['version', /\b(?:version|ver|rev)\s*[.:#]*\s*([A-Z0-9][A-Z0-9.-]{0,})/i],
];

/** At most one proposal a field; a model the pack knows stands before what merely stands behind the word. */
export function proposalsOf(text: string, { makers, models }: KnownPlates): PlateProposal[] {
  const lines = text.split(/\r?\n/).map((line) => line.trim());
  const found = new Map<PlateProposal['field'], string>();
  const all = folded(text);
  const longest = (names: readonly string[]): string | undefined =>
    names.filter((name) => folded(name).length >= 3 && all.includes(folded(name))).sort((a, b) => b.length - a.length)[0];
  const maker = longest(makers);
  const model = longest(models);
  if (maker !== undefined) found.set('maker', maker);
  if (model !== undefined) found.set('model', model);
  for (const line of lines) {
    for (const [field, pattern] of labelled) {
      const value = pattern.exec(line)?.[1]?.trim();
      if (value !== undefined && !found.has(field)) found.set(field, value);
    }
  }
  return [...found].map(([field, value]) => ({ field, value }));
}
