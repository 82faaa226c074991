/** What a bench expects of families that it keeps itself, written down before the rule. Common practice, no source; makers and models made up. */

/** A set's plate against what families say they cover. */
export const coverCases: readonly {
  readonly name: string;
  readonly families: readonly {
    readonly id: string;
    readonly models: readonly string[];
    readonly retired?: true;
    readonly scope?: {
      readonly versions?: readonly string[];
      readonly years?: readonly [number, number];
      readonly except?: readonly string[];
    };
  }[];
  readonly plate: { readonly model: string; readonly version?: string; readonly year?: number };
  readonly found: readonly string[];
}[] = [
  { name: 'by model, however it is spaced', families: [{ id: 'a', models: ['TX-43'] }], plate: { model: 'tx 43' }, found: ['a'] },
  { name: 'part of a model is no model', families: [{ id: 'a', models: ['TX-43'] }], plate: { model: 'TX' }, found: [] },
  { name: 'no model, no family', families: [{ id: 'a', models: ['TX-43'] }], plate: { model: ' - ' }, found: [] },
  {
    name: 'a retired family is not offered',
    families: [{ id: 'a', models: ['TX-43'], retired: true }],
    plate: { model: 'TX-43' },
    found: [],
  },
  {
    name: 'the version tells two families of one model apart',
    families: [
      { id: 'a', models: ['TX-43'], scope: { versions: ['A', 'A2'] } },
      { id: 'b', models: ['TX-43'], scope: { versions: ['B'] } },
    ],
    plate: { model: 'TX-43', version: 'b' },
    found: ['b'],
  },
  {
    name: 'without a version both are possible',
    families: [
      { id: 'a', models: ['TX-43'], scope: { versions: ['A'] } },
      { id: 'b', models: ['TX-43'], scope: { versions: ['B'] } },
    ],
    plate: { model: 'TX-43' },
    found: ['a', 'b'],
  },
  {
    name: 'built after the family ended',
    families: [{ id: 'a', models: ['TX-43'], scope: { years: [2014, 2017] } }],
    plate: { model: 'TX-43', year: 2018 },
    found: [],
  },
  {
    name: 'built in its last year',
    families: [{ id: 'a', models: ['TX-43'], scope: { years: [2014, 2017] } }],
    plate: { model: 'TX-43', year: 2017 },
    found: ['a'],
  },
  {
    name: 'an exception by version',
    families: [{ id: 'a', models: ['TX-43'], scope: { except: ['A3'] } }],
    plate: { model: 'TX-43', version: 'a3' },
    found: [],
  },
  {
    name: 'an exception by model and version leaves the other model in',
    families: [{ id: 'a', models: ['TX-43', 'TX-50'], scope: { except: ['TX-50 A3'] } }],
    plate: { model: 'TX-43', version: 'A3' },
    found: ['a'],
  },
];

/** What goes along when a family begins as "like X, but". Traits, healthy behaviour, rails and service keys come with the chassis. */
export const likeExpects = {
  same: ['layouts', 'traits', 'healthy', 'rails', 'service', 'jig'],
  /** They are the other’s: models by the plate, codes by count, remotes as they were tried, notes as somebody wrote them. */
  empty: ['models', 'blink', 'remotes', 'notes'],
} as const;
