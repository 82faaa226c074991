/** A family as it stands in the form, all text, and the document it makes. No screen in here. */
import { parseQuantity, type Family } from '@veglia/core';

export interface TypedRail {
  id: string;
  name: string;
  point: string;
  state: 'standby' | 'on';
  volts: string;
  tolerance: string;
  ohms: string;
  source: string;
}
export interface TypedFamily {
  id: string;
  name: string;
  maker: string;
  layouts: string[];
  /** Separated by commas. */
  models: string;
  versions: string;
  years: string;
  except: string;
  off: string;
  starting: string;
  on: string;
  seconds: string;
  longest: string;
  clicks: string;
  chime: '' | 'yes' | 'no';
  traits: Record<string, '' | 'yes' | 'no'>;
  rails: TypedRail[];
  /** A line each. */
  service: string;
  remotes: string;
  notes: string;
  jig: string;
  ribbons: '' | 'each' | 'link';
  source: string;
  from: string;
  retired: boolean;
}

/** The form as it is kept in this browser until it is saved. */
export const draftName = (id: string): string => `family-${id}`;

/** Traits that rules ask for and no family has said yet. */
const alsoAsked = ['bl-err.active-low'];
/** Every trait a family can have, in the order in which they are first named. */
export const knownTraits = (families: readonly Pick<Family, 'traits'>[]): string[] => [
  ...new Set([...families.flatMap(({ traits }) => Object.keys(traits)), ...alsoAsked]),
];

export const blankRail = (): TypedRail => ({
  id: '',
  name: '',
  point: '',
  state: 'on',
  volts: '',
  tolerance: '5',
  ohms: '',
  source: '',
});

export function typedFamily(family: Family): TypedFamily {
  const { healthy, scope } = family;
  const list = (items: readonly string[] | undefined): string => (items ?? []).join(', ');
  const lines = (items: readonly { readonly en: string }[] | undefined): string => (items ?? []).map(({ en }) => en).join('\n');
  return {
    id: family.id,
    name: family.name.en,
    maker: family.maker,
    layouts: [...family.layouts],
    models: list(family.models),
    versions: list(scope?.versions),
    years: scope?.years ? scope.years.join('–') : '',
    except: list(scope?.except),
    off: healthy.off.en,
    starting: healthy.starting.en,
    on: healthy.on.en,
    seconds: String(healthy.secondsToPicture),
    longest: String(healthy.longestStartSeconds),
    clicks: healthy.clicks === undefined ? '' : String(healthy.clicks),
    chime: healthy.chime === undefined ? '' : healthy.chime ? 'yes' : 'no',
    traits: { ...family.traits },
    rails: family.rails.map(({ id, name, point, state, nominalVolts, tolerancePercent, ohms, source }) => ({
      id,
      name,
      point,
      state,
      volts: String(nominalVolts),
      tolerance: String(tolerancePercent),
      ohms: ohms === undefined ? '' : String(ohms),
      source,
    })),
    service: lines(family.service),
    remotes: (family.remotes ?? []).join('\n'),
    notes: lines(family.notes),
    jig: family.jig ?? '',
    ribbons: family.ribbons ?? '',
    source: family.source,
    from: family.from ?? '',
    retired: family.retired === true,
  };
}

/** A family of nothing but its name. */
export const blankFamily = (id: string, name: string, maker: string): TypedFamily => ({
  ...typedFamily({
    id,
    name: { en: name },
    maker,
    layouts: [],
    models: [],
    traits: {},
    healthy: { off: { en: '' }, starting: { en: '' }, on: { en: '' }, secondsToPicture: 10, longestStartSeconds: 20 },
    blink: [],
    rails: [],
    source: '',
  }),
  seconds: '',
  longest: '',
});

/** An id from maker and name: lower-case, dotted, for ever. */
export const familyIdOf = (maker: string, name: string): string => {
  const slug = (text: string): string =>
    text
      .toLowerCase()
      .normalize('NFKD')
      .replace(/\p{M}+/gu, '')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '');
  const own = slug(name.toLowerCase().replace(maker.toLowerCase(), ''));
  return [slug(maker), own].filter((part) => part !== '').join('.');
};

/** The document for the server to look at: what can't be read as a number stays as typed, and is refused by place. */
export function familyOf(typed: TypedFamily, blink: Family['blink']): object {
  const list = (text: string): string[] =>
    text
      .split(/[,;\n]/)
      .map((one) => one.trim())
      .filter((one) => one !== '');
  const lines = (text: string): string[] =>
    text
      .split('\n')
      .map((one) => one.trim())
      .filter((one) => one !== '');
  const number = (text: string, unit: 'V' | 'Ω' | '%' | 's' | ''): unknown => parseQuantity(text, unit) ?? text.trim();
  const some = (name: string, items: readonly unknown[]): object => (items.length > 0 ? { [name]: items } : {});
  const given = (name: string, text: string, value: unknown = text.trim()): object => (text.trim() === '' ? {} : { [name]: value });
  const years = /^\s*(\d{4})\s*[–-]\s*(\d{4})\s*$/.exec(typed.years);
  const scope = {
    ...some('versions', list(typed.versions)),
    ...given('years', typed.years, years ? [Number(years[1]), Number(years[2])] : typed.years),
    ...some('except', list(typed.except)),
  };
  return {
    id: typed.id,
    name: { en: typed.name.trim() },
    maker: typed.maker.trim(),
    layouts: typed.layouts,
    models: list(typed.models),
    traits: Object.fromEntries(Object.entries(typed.traits).filter(([, value]) => value !== '')),
    healthy: {
      off: { en: typed.off.trim() },
      starting: { en: typed.starting.trim() },
      on: { en: typed.on.trim() },
      secondsToPicture: number(typed.seconds, 's'),
      longestStartSeconds: number(typed.longest, 's'),
      ...given('clicks', typed.clicks, number(typed.clicks, '')),
      ...(typed.chime === '' ? {} : { chime: typed.chime === 'yes' }),
    },
    blink,
    rails: typed.rails.map(({ id, name, point, state, volts, tolerance, ohms, source }, index) => ({
      id: id || point || `rail-${index + 1}`,
      name: name.trim(),
      nominalVolts: number(volts, 'V'),
      tolerancePercent: number(tolerance, '%'),
      point,
      state,
      ...given('ohms', ohms, number(ohms, 'Ω')),
      source: source.trim() || typed.source.trim(),
    })),
    ...some(
      'service',
      lines(typed.service).map((en) => ({ en })),
    ),
    ...some('remotes', lines(typed.remotes)),
    ...some(
      'notes',
      lines(typed.notes).map((en) => ({ en })),
    ),
    ...given('jig', typed.jig),
    ...(typed.ribbons === '' ? {} : { ribbons: typed.ribbons }),
    ...(Object.keys(scope).length > 0 ? { scope } : {}),
    ...given('from', typed.from),
    ...(typed.retired ? { retired: true } : {}),
    source: typed.source.trim(),
  };
}
