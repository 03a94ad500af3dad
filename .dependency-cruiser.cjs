/** The storeys of the house: imports run one way, and a room is entered through its public file. */

/** The rooms of an app: every folder but its ground, its shared parts and its roof. */
const ROOM = '(?!kernel/|app/|ui/|forms/)[^/]+/';

module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      comment: 'Two files import each other in a circle: move what both need into a third.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-knows-nobody',
      comment: 'Core is pure computation: it may not import the contract, an app, zod or anything of Node.',
      severity: 'error',
      from: { path: '^packages/core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(packages/contract|apps)/|node_modules/|^node:', dependencyTypesNot: ['npm-dev'] },
    },
    {
      name: 'core-no-node',
      comment: 'Core runs in browsers and workers too: nothing of Node in it.',
      severity: 'error',
      from: { path: '^packages/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'contract-knows-core-only',
      comment: 'The contract may import the core, never an app.',
      severity: 'error',
      from: { path: '^packages/contract/' },
      to: { path: '^apps/' },
    },
    {
      name: 'web-and-server-apart',
      comment: 'Web and server meet in the contract, never directly.',
      severity: 'error',
      from: { path: '^apps/(web|server)/' },
      to: { path: '^apps/(?!$1)' },
    },
    {
      name: 'core-rooms-by-their-door',
      comment: 'Enter another room of the core through its index.ts.',
      severity: 'error',
      from: { path: '^packages/core/src/([^/]+)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/(?!$1)[^/]+/(?!index\\.ts$)' },
    },
    {
      name: 'app-rooms-by-their-door',
      comment: 'Enter another room of an app through its index.ts; kernel, ui and forms serve all rooms.',
      severity: 'error',
      from: { path: '^apps/(web|server)/src/([^/]+)/' },
      to: { path: `^apps/$1/src/(?!$2/)${ROOM}(?!index\\.ts$)` },
    },
    {
      name: 'kernel-knows-no-room',
      comment: 'The kernel serves every room and knows none of them, nor the parts above it: hand in what it needs.',
      severity: 'error',
      from: { path: '^apps/(web|server)/src/kernel/' },
      to: { path: '^apps/$1/src/(?!kernel/)' },
    },
    {
      name: 'ui-knows-kernel-only',
      comment: 'Shared parts stand on the kernel: they know no room, and no form.',
      severity: 'error',
      from: { path: '^apps/web/src/ui/' },
      to: { path: '^apps/web/src/(?!kernel/|ui/)' },
    },
    {
      name: 'forms-know-kernel-and-ui',
      comment: 'Forms stand on the kernel and the shared parts: they know no room.',
      severity: 'error',
      from: { path: '^apps/web/src/forms/' },
      to: { path: '^apps/web/src/(?!kernel/|ui/|forms/)' },
    },
    {
      name: 'app-is-the-roof',
      comment: 'The app puts the rooms together; nothing below it may need it.',
      severity: 'error',
      from: { path: '^apps/(web|server)/src/', pathNot: '^apps/(web|server)/src/(app/|main\\.tsx?$)' },
      to: { path: '^apps/(web|server)/src/app/' },
    },
    {
      name: 'engine-blind-to-simulator',
      comment: 'The engine must not know the simulated bar.',
      severity: 'error',
      from: { path: '^packages/core/src/(?!practice/)', pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/practice/' },
    },
    {
      name: 'apps-do-not-import-tools',
      comment: 'Tools start the apps, not the other way round.',
      severity: 'error',
      from: { path: '^(apps|packages)/', pathNot: '(\\.test\\.tsx?$|/test/)' },
      to: { path: '^(tools|e2e)/' },
    },
    {
      name: 'no-unknown-packages',
      comment: 'Every package in use stands in a package.json.',
      severity: 'error',
      // Types that a file only points to carry another name than their package.
      from: { pathNot: '\\.d\\.ts$' },
      // The bundler's way to ask for a file's address.
      to: { couldNotResolve: true, pathNot: '\\?url$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json', '.css'],
    },
  },
};
