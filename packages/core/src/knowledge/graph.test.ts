import { describe, expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { classifyCut, deriveProcedure } from './index.ts';

const layout = shipped().layouts.get('led-tcon')!;
const sorted = (pulled: string[]): Record<string, string[]> => {
  const classes: Record<string, string[]> = { inside: [], beyond: [], unrelated: [] };
  for (const [id, one] of classifyCut(layout, pulled)) classes[one]!.push(id);
  return classes;
};

describe('what a cut leaves inside and puts beyond', () => {
  test('picture cable out: T-con, ribbons, panel and the cable itself are beyond; power and main inside', () => {
    const { inside, beyond, unrelated } = sorted(['harness.picture']);
    expect(beyond!.sort()).toEqual(['harness.panel-left', 'harness.panel-right', 'harness.picture', 'panel', 'tcon']);
    expect(inside!.sort()).toEqual(['harness.power-main', 'main', 'outside', 'power']);
    expect(unrelated).toEqual(expect.arrayContaining(['strips', 'harness.light', 'keys']));
  });

  test('both panel ribbons out: the panel is beyond, the T-con is not', () => {
    const { beyond, inside } = sorted(['harness.panel-left', 'harness.panel-right']);
    expect(beyond!.sort()).toEqual(['harness.panel-left', 'harness.panel-right', 'panel']);
    expect(inside).toContain('tcon');
  });

  test('one ribbon out: the panel still hangs on the other', () => {
    expect(sorted(['harness.panel-left']).beyond).toEqual(['harness.panel-left']);
  });

  test('power-main harness out: main and all that hangs on it is beyond, the light is not', () => {
    const { beyond, unrelated } = sorted(['harness.power-main']);
    expect(beyond).toEqual(expect.arrayContaining(['main', 'tcon', 'panel', 'keys', 'speakers', 'radio']));
    expect(unrelated!.sort()).toEqual(['harness.ground', 'harness.light', 'strips']);
  });
});

describe('what follows from a procedure', () => {
  const stages = shipped().stageIds;
  const derive = (id: string, of?: string) => deriveProcedure(shipped().tests.get(id)!, layout, stages, of);

  test.each([
    ['look.glass', { stage: 0, needs: 'any', pulled: [], liveInside: false }],
    ['rail.standby', { stage: 1, needs: 'plugged', liveInside: true, endsPlugged: true }],
    ['fuse', { stage: 1, touchesHot: true, endsPlugged: false, waitMinutes: 4 }],
    ['cut.picture', { stage: 1, pulled: ['harness.picture'], leftOut: [], endsPlugged: false, waitMinutes: 4 }],
    ['cables-out', { stage: 0, pulled: ['signal-cables'], leftOut: [] }],
    ['reset-wait', { stage: 0, waitMinutes: 4, endsPlugged: true }],
    ['forced-start', { bridges: true, pulled: ['harness.power-main'], leftOut: [] }],
    ['heat.all-but', { changesTemperature: true, waitMinutes: 100 }],
  ])('%s', (id, expected) => {
    expect(derive(id)).toMatchObject(expected);
  });

  test('a test that names its object opens the set as far as that object lies', () => {
    expect(derive('reseat', 'harness.picture').stage).toBe(1);
    // One assembly is kept cold while all the others are warmed: it has to be reached.
    expect(derive('heat.all-but', 'main').stage).toBe(1);
    expect(derive('warm-hour').stage).toBe(0);
  });
});
