/**
 * TypeScript for Jest. Each test file runs in a context of its own, where every look at a global such as `Math` is a call out of the
 * engine: the judge's arithmetic took twice as long there as in the app. Each module gets them once, under their own names. `Date` and
 * the timers stay as they are, because tests put others in their place.
 */
import swc from '@swc/jest';

const names = ['Math', 'Number', 'Object', 'Array', 'Map', 'Set', 'String', 'JSON', 'Float64Array'];
const once = `const {${names.join(',')}} = globalThis;`;
const declared = new RegExp(`\\b(?:const|let|class|function|import|as)\\s+(?:${names.join('|')})\\b`);

export default { createTransformer };

function createTransformer(options) {
  const inner = swc.createTransformer(options);
  return {
    ...inner,
    process(source, ...more) {
      const result = inner.process(source, ...more);
      return declared.test(source) ? result : { ...result, code: `${once} ${result.code}` };
    },
    async processAsync(source, ...more) {
      const result = await inner.processAsync(source, ...more);
      return declared.test(source) ? result : { ...result, code: `${once} ${result.code}` };
    },
    getCacheKey: (...all) => `${inner.getCacheKey(...all)}-${once}`,
  };
}
