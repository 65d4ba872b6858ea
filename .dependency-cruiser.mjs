/** Directions of imports, as docs/architecture.md draws them. */
const within = (name) => ({ path: `^${name}/src` });

const SERVER = 'apps/server/src';
/** From the ground up; what stands at the top (demo, testing, handlers, app) may use all of them. */
const FLOORS = ['words', 'model', 'platform', 'auth', 'permissions', 'queries', 'features'];

/** No floor of the server knows one above it. Whole-application tests stand beside what they test, so they are exempt. */
const floors = FLOORS.map((floor, at) => ({
  name: `${floor}-knows-nothing-above-it`,
  severity: 'error',
  from: { path: `^${SERVER}/${floor}/`, pathNot: '\\.spec\\.ts$' },
  to: { path: `^${SERVER}/`, pathNot: FLOORS.slice(0, at + 1).map((one) => `^${SERVER}/${one}/`) },
}));

export default {
  forbidden: [
    ...floors,
    {
      name: 'features-ask-through-services',
      comment: 'One feature of the server asks another by a service, found through its module.',
      severity: 'error',
      from: { path: `^${SERVER}/features/([^/]+)/`, pathNot: '\\.spec\\.ts$' },
      to: { path: `^${SERVER}/features/`, pathNot: [`^${SERVER}/features/$1/`, '\\.(service|module)\\.ts$'] },
    },
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    { name: 'no-unresolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
    {
      name: 'core-imports-nothing-of-ours',
      severity: 'error',
      from: within('packages/core'),
      to: { path: '^(packages/contracts|apps)/' },
    },
    {
      name: 'contracts-import-core-only',
      severity: 'error',
      from: within('packages/contracts'),
      to: { path: '^apps/' },
    },
    { name: 'server-and-web-are-apart', severity: 'error', from: within('apps/server'), to: { path: '^apps/web/' } },
    { name: 'web-and-server-are-apart', severity: 'error', from: within('apps/web'), to: { path: '^apps/server/' } },
    {
      name: 'the-stand-in-platform-is-apart',
      comment: 'It speaks with us by the standards alone; tests start it.',
      severity: 'error',
      from: { path: '^apps/platform/src' },
      to: { path: '^(packages|apps/(server|web))/' },
    },
    {
      name: 'only-tests-start-the-stand-in-platform',
      severity: 'error',
      from: { path: '^apps/(server|web)/src', pathNot: '\\.spec\\.ts$|/testing/' },
      to: { path: '^apps/platform/' },
    },
    {
      name: 'packages-by-their-front-door',
      comment: 'Other packages use what index.ts names.',
      severity: 'error',
      from: { path: '^(packages|apps)/([^/]+)/' },
      to: {
        path: '^packages/([^/]+)/src/',
        pathNot: ['^packages/$2/', '^packages/[^/]+/src/index.ts$', '^packages/contracts/src/plain.ts$'],
      },
    },
    {
      name: 'no-validators-in-the-browser',
      comment:
        'Values come from contracts/plain; the index brings the classes of requests, and their validators, along.',
      severity: 'error',
      from: { path: '^apps/web/src/', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^packages/contracts/src/index.ts$', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'kit-knows-no-feature',
      severity: 'error',
      from: { path: '^apps/web/src/kit/' },
      to: { path: '^apps/web/src/(features|app)/' },
    },
    {
      name: 'app-knows-no-feature',
      severity: 'error',
      from: { path: '^apps/web/src/app/' },
      to: { path: '^apps/web/src/features/' },
    },
    {
      name: 'features-are-apart',
      severity: 'error',
      from: { path: '^apps/web/src/features/([^/]+)/' },
      to: { path: '^apps/web/src/features/', pathNot: '^apps/web/src/features/$1/' },
    },
    {
      name: 'core-is-pure',
      comment:
        'No framework, no Node; three small packages are all it uses: a search, a comparison, and offsets of time zones.',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '\\.test\\.ts$' },
      to: {
        path: 'node_modules',
        pathNot:
          'node_modules/(approx-string-match|diff|@date-fns/tz|intl-messageformat|@formatjs/icu-messageformat-parser)/',
      },
    },
    {
      name: 'not-from-the-own-index',
      severity: 'error',
      // A test of the package as others see it stands beside its index.
      from: { path: '^packages/([^/]+)/src/', pathNot: '^packages/[^/]+/src/(index|[^/]+\\.test)\\.ts$' },
      to: { path: '^packages/$1/src/index\\.ts$' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '/dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.imports.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
