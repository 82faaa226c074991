/** What a pack's items say of each other. The schema has already passed; here every reference and every row is tried. */
import type { Problem } from '../problems.ts';
import { checkBlinkCodes } from './checkBlink.ts';
import { checkCautions } from './checkCautions.ts';
import { checkHistories } from './histories.ts';
import { checkProof } from './checkProof.ts';
import { checkClasses, checkMechanism } from './checkClasses.ts';
import { outcomesThatFollow } from './consequences.ts';
import { selectRow } from './compile.ts';
import { hasCycle, unreachableNodes } from './graph.ts';
import { frequencyIn, hasPlace, objectsOf, placeOf, placesOf, testFits } from './applies.ts';
import { deriveProcedure } from './procedure.ts';
import { rowNumbers, rowSumRange } from './scale.ts';
import { silentOutcomes, type Layout, type Pack, type TestDefinition } from './schema.ts';

const classes = ['*', '@inside', '@beyond', '@unrelated', '@of'];

/** All problems, in the order of the document; an empty list means the pack may be used. */
export function checkPack(pack: Pack): Problem[] {
  const problems: Problem[] = [];
  const ids = (items: readonly { id: string }[]): Set<string> => new Set(items.map((item) => item.id));
  const known = {
    assembly: ids(pack.assemblies),
    caution: ids(pack.cautions),
    family: ids(pack.families),
    fault: ids(pack.faults),
    layout: ids(pack.layouts),
    stage: ids(pack.stages),
    symptom: ids(pack.symptoms),
    test: ids(pack.tests),
    tool: ids(pack.tools),
  };
  const refer = (kind: keyof typeof known, id: string, where: string): void => {
    if (!known[kind].has(id)) problems.push({ code: 'unknown-id', where, value: id, expected: kind });
  };
  const word = (kind: 'likelihood' | 'frequency', value: string, where: string): void => {
    if (pack.scale[kind][value] === undefined) problems.push({ code: 'word-unknown', where, value, expected: kind });
  };
  const row = (likelihoods: Readonly<Record<string, string>>, outcomes: readonly string[], where: string): void => {
    for (const key of Object.keys(likelihoods)) {
      if (!outcomes.includes(key)) problems.push({ code: 'unknown-id', where: `${where}.${key}`, value: key, expected: 'outcome' });
    }
    const numbers = rowNumbers(pack.scale, outcomes, likelihoods);
    for (const unknown of numbers.unknownWords) problems.push({ code: 'word-unknown', where, value: unknown, expected: 'likelihood' });
    if (numbers.restCount > 1) problems.push({ code: 'row-rest-twice', where, value: numbers.restCount });
    if (numbers.sum < rowSumRange.least || numbers.sum > rowSumRange.most) {
      problems.push({
        code: 'row-sum',
        where,
        value: Math.round(numbers.sum * 1000) / 1000,
        expected: `${rowSumRange.least}-${rowSumRange.most}`,
      });
    }
  };

  const named: readonly (readonly [string, readonly { id: string }[]])[] = [
    ['stages', pack.stages],
    ['cautions', pack.cautions],
    ['assemblies', pack.assemblies],
    ['symptoms', pack.symptoms],
    ['classes', pack.classes],
    ['histories', pack.histories],
    ['consequences', pack.consequences],
    ['proof', pack.proof],
    ['layouts', pack.layouts],
    ['faults', pack.faults],
    ['tests', pack.tests],
    ['repairs', pack.repairs],
    ['families', pack.families],
    ['schools', pack.schools],
    ['looks', pack.looks],
    ['labels', pack.labels],
  ];
  for (const [list, items] of named) {
    const seen = new Set<string>();
    for (const item of items) {
      if (seen.has(item.id)) problems.push({ code: 'duplicate-id', where: `${list}/${item.id}`, value: item.id });
      seen.add(item.id);
    }
  }
  // Likelihood rows address faults and assemblies by the same key.
  for (const fault of pack.faults) {
    if (known.assembly.has(fault.id)) problems.push({ code: 'duplicate-id', where: `faults/${fault.id}`, value: fault.id });
  }
  for (const stage of pack.stages) {
    for (const caution of stage.cautions) refer('caution', caution, `stages/${stage.id}.cautions`);
    for (const layout of pack.layouts)
      for (const caution of layout.cautions ?? []) refer('caution', caution, `layouts/${layout.id}.cautions`);
  }

  for (const look of pack.looks) {
    const answers = look.answers.map(({ id }) => id);
    look.rows.forEach((one, index) => {
      const where = `looks/${look.id}.rows[${index}]`;
      for (const id of one.for) if (id !== '*') refer('layout', id, where);
      row(one.likelihoods, answers, where);
    });
    if (!look.rows.at(-1)?.for.includes('*')) problems.push({ code: 'row-missing-default', where: `looks/${look.id}` });
  }

  checkLabels(pack, problems);
  for (const layout of pack.layouts) checkLayout(pack, layout, known, refer, word, problems);

  for (const fault of pack.faults) {
    const where = `faults/${fault.id}`;
    refer('assembly', fault.assembly, `${where}.assembly`);
    for (const [layoutId, frequency] of Object.entries(fault.frequency)) {
      if (layoutId !== '*') refer('layout', layoutId, `${where}.frequency`);
      if (frequency !== 'none') word('frequency', frequency, `${where}.frequency.${layoutId}`);
      const layout = pack.layouts.find((item) => item.id === layoutId);
      if (layout && frequency !== 'none' && !layout.assemblies.includes(placeOf(fault.assembly, layout))) {
        problems.push({ code: 'unknown-id', where: `${where}.assembly`, value: fault.assembly, expected: `assembly of ${layoutId}` });
      }
    }
    for (const id of fault.needs ?? []) refer('assembly', id, `${where}.needs`);
    if (!pack.layouts.some((layout) => frequencyIn(fault, layout) !== undefined)) {
      problems.push({ code: 'never-applies', where });
    }
    if (fault.symptoms) row(fault.symptoms, [...known.symptom], `${where}.symptoms`);
    fault.symptomsWhen?.forEach(({ symptoms }, index) => row(symptoms, [...known.symptom], `${where}.symptomsWhen[${index}]`));
    checkMechanism(pack, fault, problems);
  }

  checkClasses(pack, problems);
  checkHistories(pack, problems);
  const outcomeOf = (test: string, outcome: string, where: string): void => {
    refer('test', test, where);
    const found = pack.tests.find(({ id }) => id === test);
    if (found && !found.observe.outcomes.some(({ id }) => id === outcome))
      problems.push({ code: 'unknown-id', where, value: outcome, expected: `outcome of ${test}` });
  };
  for (const one of pack.consequences) {
    const { id, after } = one;
    for (const outcome of after.outcomes) outcomeOf(after.test, outcome, `consequences/${id}.after`);
    for (const [test, outcomes] of outcomesThatFollow(one))
      for (const outcome of outcomes) outcomeOf(test, outcome, `consequences/${id}.then`);
    for (const layout of one.layouts ?? []) refer('layout', layout, `consequences/${id}.layouts`);
  }
  checkProof(pack, problems);
  checkCautions(pack, problems);
  checkOpposites(pack, problems);
  for (const test of pack.tests) checkTest(pack, test, known, refer, word, row, problems);

  for (const repair of pack.repairs) {
    const where = `repairs/${repair.id}`;
    refer('assembly', repair.assembly, `${where}.assembly`);
    if (repair.at !== undefined && !pack.layouts.some(({ points }) => points[repair.at ?? ''] !== undefined))
      problems.push({ code: 'unknown-id', where: `${where}.at`, value: repair.at, expected: 'point' });
    for (const [cured, strength] of Object.entries(repair.fixes)) {
      if (!known.fault.has(cured)) refer('assembly', cured, `${where}.fixes`);
      word('likelihood', strength, `${where}.fixes.${cured}`);
    }
    for (const { test, unless } of repair.first ?? []) {
      refer('test', test, `${where}.first`);
      if (unless) refer('test', unless.test, `${where}.first.unless`);
    }
    for (const { test, outcomes } of repair.mainsAfter ?? []) {
      refer('test', test, `${where}.mainsAfter`);
      const known = pack.tests.find(({ id }) => id === test)?.observe.outcomes.map(({ id }) => id) ?? outcomes;
      for (const outcome of outcomes)
        if (!known.includes(outcome))
          problems.push({ code: 'unknown-id', where: `${where}.mainsAfter`, value: outcome, expected: 'outcome' });
    }
    for (const tool of repair.tools ?? []) refer('tool', tool, `${where}.tools`);
    for (const layout of repair.layouts ?? []) refer('layout', layout, `${where}.layouts`);
    for (const caution of repair.cautions) refer('caution', caution, `${where}.cautions`);
  }

  for (const family of pack.families) {
    const where = `families/${family.id}`;
    for (const layout of family.layouts) refer('layout', layout, `${where}.layouts`);
    problems.push(...checkBlinkCodes(family.blink, (index) => `${where}.blink/${family.blink[index]?.id ?? index}`, pack));
  }
  for (const school of pack.schools) {
    const where = `schools/${school.id}`;
    if (!school.options.some(({ id }) => id === school.usual))
      problems.push({ code: 'unknown-id', where, value: school.usual, expected: 'option' });
    for (const id of school.options.flatMap(({ shifts }) => Object.keys(shifts))) {
      if (!known.test.has(id) && !pack.repairs.some((repair) => repair.id === id)) {
        problems.push({ code: 'unknown-id', where, value: id, expected: 'test or repair' });
      }
    }
  }
  for (const [old, current] of Object.entries(pack.aliases)) {
    const exists = named.some(([, items]) => items.some((item) => item.id === current));
    if (!exists) problems.push({ code: 'alias-to-nowhere', where: `aliases.${old}`, value: current });
  }
  return problems;
}

type Known = Readonly<
  Record<'assembly' | 'caution' | 'family' | 'fault' | 'layout' | 'stage' | 'symptom' | 'test' | 'tool', ReadonlySet<string>>
>;
type Refer = (kind: keyof Known, id: string, where: string) => void;
type Word = (kind: 'likelihood' | 'frequency', value: string, where: string) => void;
type Row = (likelihoods: Readonly<Record<string, string>>, outcomes: readonly string[], where: string) => void;

function checkLayout(pack: Pack, layout: Layout, known: Known, refer: Refer, word: Word, problems: Problem[]): void {
  const where = `layouts/${layout.id}`;
  word('frequency', layout.frequency, `${where}.frequency`);
  for (const id of layout.assemblies) {
    refer('assembly', id, `${where}.assemblies`);
    if (!pack.faults.some((fault) => placeOf(fault.assembly, layout) === id && frequencyIn(fault, layout) !== undefined)) {
      problems.push({ code: 'unknown-id', where: `${where}.assemblies`, value: id, expected: 'an assembly with a fault' });
    }
    if (id !== 'outside' && layout.proof[id] === undefined) problems.push({ code: 'proof-missing', where: `${where}.proof`, value: id });
  }
  const own = (id: string, at: string): void => {
    if (!layout.assemblies.includes(id)) problems.push({ code: 'unknown-id', where: at, value: id, expected: `assembly of ${layout.id}` });
  };
  for (const [from, to] of layout.feeds) {
    own(from, `${where}.feeds`);
    own(to, `${where}.feeds`);
  }
  if (hasCycle(layout)) problems.push({ code: 'graph-cycle', where: `${where}.feeds` });
  for (const id of unreachableNodes(layout)) problems.push({ code: 'graph-unreachable', where: `${where}.feeds`, value: id });
  for (const ribbon of Object.keys(layout.ribbons ?? {})) own(ribbon, `${where}.ribbons`);
  for (const [node, stage] of Object.entries(layout.access)) {
    if (layout.points[node] === undefined && !pack.places.includes(node)) own(node, `${where}.access`);
    refer('stage', stage, `${where}.access.${node}`);
  }
  for (const [point, detail] of Object.entries(layout.points)) own(detail.on, `${where}.points.${point}`);
  for (const id of [...Object.keys(layout.plan.places), ...Object.keys(layout.plan.wires)]) own(id, `${where}.plan`);
  for (const { test } of layout.fixedList) {
    const found = pack.tests.find((item) => item.id === test);
    if (!found || !testFits(pack, found, layout)) problems.push({ code: 'list-unknown-test', where: `${where}.fixedList`, value: test });
  }
  for (const [assembly, proof] of Object.entries(layout.proof)) {
    own(assembly, `${where}.proof`);
    for (const item of proof.anyOf.flat()) {
      if ('symptoms' in item) for (const id of item.symptoms) refer('symptom', id, `${where}.proof.${assembly}`);
      if (!('test' in item)) continue;
      const test = pack.tests.find((candidate) => candidate.id === item.test);
      if (!test) refer('test', item.test, `${where}.proof.${assembly}`);
      for (const outcome of item.outcomes) {
        if (test && !test.observe.outcomes.some((one) => one.id === outcome)) {
          problems.push({ code: 'unknown-id', where: `${where}.proof.${assembly}`, value: outcome, expected: `outcome of ${test.id}` });
        }
      }
    }
  }
}

function checkTest(pack: Pack, test: TestDefinition, known: Known, refer: Refer, word: Word, row: Row, problems: Problem[]): void {
  const where = `tests/${test.id}`;
  const outcomes = test.observe.outcomes.map((outcome) => outcome.id);
  if (new Set(outcomes).size !== outcomes.length) problems.push({ code: 'duplicate-id', where: `${where}.observe` });
  for (const silent of silentOutcomes) {
    if (outcomes.includes(silent)) problems.push({ code: 'duplicate-id', where: `${where}.observe`, value: silent });
  }
  word('likelihood', test.error, `${where}.error`);
  for (const caution of test.cautions) refer('caution', caution, `${where}.cautions`);
  for (const layout of test.scope.layouts ?? []) refer('layout', layout, `${where}.scope`);
  for (const id of test.scope.needs ?? []) refer('assembly', id, `${where}.scope.needs`);
  for (const { family } of [...(test.scope.only ?? []), ...(test.scope.except ?? [])]) {
    if (family !== undefined) refer('family', family, `${where}.scope`);
  }
  for (const tool of test.tools) refer('tool', tool, `${where}.tools`);
  for (const one of test.first ?? []) refer('test', one.test, `${where}.first`);
  checkPlaces(pack, test, problems);
  const unseen = test.observe.outcomes.filter((outcome) => outcome.seen === undefined);
  if (unseen.length !== 1) {
    problems.push({
      code: 'outcome-not-observable',
      where: `${where}.observe`,
      value: unseen.length,
      expected: 'one outcome without seen',
    });
  }
  for (const symptom of test.scope.symptoms ?? []) refer('symptom', symptom, `${where}.scope`);
  for (const { needs } of test.speaksOnlyIf) for (const symptom of needs.symptoms ?? []) refer('symptom', symptom, `${where}.speaksOnlyIf`);
  for (const option of test.of?.options ?? []) refer('assembly', option, `${where}.of`);

  if (test.likelihood.at(-1)?.when !== undefined) problems.push({ code: 'likelihood-no-fallback', where: `${where}.likelihood` });
  test.likelihood.forEach((block, index) => {
    const at = `${where}.likelihood[${index}]`;
    const keys = block.rows.flatMap((item) => item.for);
    if (!keys.includes('*')) problems.push({ code: 'row-missing-default', where: at });
    for (const key of new Set(keys)) {
      if (keys.filter((other) => other === key).length > 1) problems.push({ code: 'row-repeated', where: at, value: key });
    }
    const isCut = keys.some((key) => key.startsWith('@') && key !== '@of');
    for (const item of block.rows) {
      row(item.likelihoods, outcomes, `${at}.${item.for.join(',')}`);
      for (const key of item.for) {
        if (classes.includes(key)) continue;
        const [named = key] = key.split('@');
        if (named.startsWith('does:')) {
          if (!pack.classes.some(({ id }) => `does:${id}` === named))
            problems.push({ code: 'unknown-id', where: `${at}.for`, value: key, expected: 'class' });
        } else if (!known.fault.has(named)) refer('assembly', named, `${at}.for`);
        // A cut rules out and blames by what lies where; a row that differs gives its reason.
        if (isCut && item.reason === undefined) problems.push({ code: 'exception-without-reason', where: at, value: key });
      }
    }
  });

  const stageIds = pack.stages.map((stage) => stage.id);
  for (const layout of pack.layouts.filter((item) => testFits(pack, test, item))) {
    for (const of of test.of ? objectsOf(test, layout) : [undefined]) {
      const procedure = deriveProcedure(test, layout, stageIds, of);
      if (procedure.leftOut.length > 0)
        problems.push({ code: 'pull-not-restored', where: `${where}.do`, value: procedure.leftOut.join(', ') });
      if (procedure.unreachable !== undefined) {
        problems.push({ code: 'state-unreachable', where: `${where}.do`, value: procedure.unreachable });
      }
      if (procedure.pullsUnderPower) problems.push({ code: 'pull-under-power', where: `${where}.do` });
      const dangerous = procedure.liveInside || procedure.touchesHot || procedure.bridges || procedure.changesTemperature;
      const kills = test.cautions.some((id) => pack.cautions.find((caution) => caution.id === id)?.severity === 'kills');
      if (dangerous && test.cautions.length === 0) problems.push({ code: 'procedure-without-caution', where: `${where}.cautions` });
      if (procedure.touchesHot && !kills) {
        problems.push({ code: 'procedure-without-caution', where: `${where}.cautions`, expected: 'a caution of severity kills' });
      }
    }
  }
  const disturbs = test.do.some(
    (step) =>
      'warm' in step ||
      'chill' in step ||
      'fit' in step ||
      'clean' in step ||
      ('press' in step && ['reset', 'update', 'own-button'].includes(step.press)),
  );
  if (disturbs && !test.disturbsCode) problems.push({ code: 'code-before-disturbance', where: `${where}.disturbsCode` });
}

/** A place no layout and no list knows is a wrong word; a test no layout can carry out is never seen by anyone. */
function checkPlaces(pack: Pack, test: TestDefinition, problems: Problem[]): void {
  const where = `tests/${test.id}`;
  for (const place of test.do.flatMap(placesOf)) {
    if (place === '$of' || pack.places.includes(place) || pack.layouts.some((layout) => hasPlace(layout, place))) continue;
    problems.push({ code: 'unknown-id', where: `${where}.do`, value: place, expected: 'assembly, point or place' });
  }
  if (!pack.layouts.some((layout) => testFits(pack, test, layout))) problems.push({ code: 'never-applies', where });
}

/** How far two assemblies' probabilities must differ under one answer before it counts as moving them apart. */
const apart = 2;

/**
 * The same procedure with the same answer can't mean opposite things in two places: where two tests do the same and share an
 * outcome, no two assemblies may be moved apart one way by the one and the other way by the other, unless a reason is given.
 */
function checkOpposites(pack: Pack, problems: Problem[]): void {
  const byProcedure = new Map<string, TestDefinition[]>();
  for (const test of pack.tests) {
    const key = JSON.stringify([test.do, test.of?.options ?? []]);
    byProcedure.set(key, [...(byProcedure.get(key) ?? []), test]);
  }
  const assemblies = pack.assemblies.map(({ id }) => id);
  for (const same of byProcedure.values()) {
    same.forEach((first, index) => {
      for (const second of same.slice(index + 1)) {
        for (const { id: outcome } of first.observe.outcomes) {
          if (!second.observe.outcomes.some(({ id }) => id === outcome)) continue;
          const one = told(pack, first, outcome);
          const two = told(pack, second, outcome);
          const pair = assemblies
            .flatMap((a) => assemblies.map((b) => [a, b] as const))
            .find(([a, b]) => one(a) >= apart * one(b) && two(b) >= apart * two(a));
          if (pair && !reasoned(first) && !reasoned(second)) {
            problems.push({
              code: 'opposite-meanings',
              where: `tests/${first.id}`,
              value: `${outcome}: ${pair.join(', ')}`,
              expected: second.id,
            });
          }
        }
      }
    });
  }
}

/** Probability of an outcome for an assembly by the last block, which holds always: over its faults, one as good as another. */
function told(pack: Pack, test: TestDefinition, outcome: string): (assembly: string) => number {
  const ids = test.observe.outcomes.map(({ id }) => id);
  const block = test.likelihood.at(-1);
  return (assembly) => {
    const own = pack.faults.filter((fault) => fault.assembly === assembly);
    if (!block || own.length === 0) return 1 / ids.length;
    const each = own.map((fault) => {
      const row = selectRow(block, { ...fault, home: assembly }, undefined, undefined);
      return row ? (rowNumbers(pack.scale, ids, row.likelihoods).likelihoods[ids.indexOf(outcome)] ?? 0) : 1 / ids.length;
    });
    return each.reduce((a, b) => a + b, 0) / each.length;
  };
}

const reasoned = (test: TestDefinition): boolean =>
  test.likelihood.some((block) => block.reason !== undefined || block.rows.some((row) => row.reason !== undefined));

/** A printed label stands for one thing, and for points that some layout has. */
function checkLabels({ labels, layouts }: Pack, problems: Problem[]): void {
  const points = new Set(layouts.flatMap((layout) => Object.keys(layout.points)));
  const taken = new Set<string>();
  for (const entry of labels) {
    for (const label of entry.labels) {
      if (taken.has(label)) problems.push({ code: 'duplicate-id', where: `labels/${entry.id}`, value: label });
      taken.add(label);
    }
    for (const point of entry.points ?? [])
      if (!points.has(point)) problems.push({ code: 'unknown-id', where: `labels/${entry.id}`, value: point, expected: 'point' });
  }
}
