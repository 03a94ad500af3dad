/** Rooms as wholes: of two rooms of an app, one may need the other, never both each other. */
module.exports = {
  forbidden: [
    {
      name: 'two-rooms-never-need-each-other',
      comment: 'Two rooms of an app need each other: move what both need down, into core, contract or kernel.',
      severity: 'error',
      scope: 'folder',
      from: { path: '^apps/(web|server)/src/[^/]+$' },
      to: { circular: true, path: '^apps/(web|server)/src/[^/]+$' },
    },
  ],
  options: {
    includeOnly: '^apps/(web|server)/src/',
    exclude: { path: '\\.test\\.tsx?$|/test[A-Z][^/]*$' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
  },
};
