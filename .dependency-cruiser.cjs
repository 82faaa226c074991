/** Arrows between packages point one way (docs/decisions/0001-layers.md). `npm run test:lint` holds it, a test breaks it. */
/** core/diagnosis, in the order of the work: each stage reads those before it. */
const stages = ['evidence', 'belief', 'verdict', 'advice', 'views'];
const forbid = (name, from, to, comment) => ({ name, severity: 'error', comment, from: { path: from }, to: { path: to } });

module.exports = {
  forbidden: [
    forbid('core-stands-alone', '^packages/core/src', '^packages/(?!core/)|^scripts/', 'core imports no other package'),
    ...stages
      .slice(0, -1)
      .map((stage, index) =>
        forbid(
          `diagnosis-${stage}-reads-back`,
          `^packages/core/src/diagnosis/${stage}/(?!.*[.]test[.]ts$)`,
          `^packages/core/src/diagnosis/(${stages.slice(index + 1).join('|')})/`,
          'evidence, belief, verdict, advice, views: no stage knows a later one',
        ),
      ),
    forbid('contract-on-core', '^packages/contract/src', '^packages/(?!core/|contract/)', 'contract imports core only'),
    forbid(
      'simulators-on-contract',
      '^packages/simulators/',
      '^packages/(?!core/|contract/|simulators/)',
      'simulators import core and contract',
    ),
    {
      name: 'simulated-set-knows-no-probabilities',
      severity: 'error',
      comment: 'the simulated set never sees likelihoods',
      from: { path: '^packages/simulators/src/set/', pathNot: '[.]test[.]ts$' },
      to: { path: '^packages/core/src/(?!knowledge/|problems)|^packages/simulators/src/(?!set/)' },
    },
    forbid('devices-not-in-web', '^packages/web/', '^packages/simulators/src/devices/', 'device stand-ins may use Node'),
    forbid('faces-apart', '^packages/(web|cli)/', '^packages/server/', 'web and cli do not reach into the server'),
    forbid('server-not-on-faces', '^packages/server/', '^packages/(web|cli)/', 'the server knows no face'),
    forbid('no-node-in-web', '^packages/web/(?!.*[.]test[.]ts$)', '^packages/contract/src/node/', 'a browser has no disk'),
    forbid('web-and-cli-apart', '^packages/web/', '^packages/cli/', 'web does not import cli'),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'no Node, no DOM helpers, no network in core',
      from: { path: '^packages/core/src', pathNot: '\\.test\\.ts$|/testing/' },
      to: { dependencyTypes: ['core'] },
    },
    { name: 'no-cycles', severity: 'error', comment: 'a cycle has no reading order', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default'],
      extensions: ['.ts', '.js', '.mjs', '.vue', '.json'],
    },
  },
};
