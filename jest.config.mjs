const swc = [
  '@swc/jest',
  {
    jsc: {
      parser: { syntax: 'typescript', tsx: true, decorators: true },
      target: 'es2023',
      transform: {
        legacyDecorator: true,
        decoratorMetadata: true,
        useDefineForClassFields: false,
        react: { runtime: 'automatic' },
      },
    },
    module: { type: 'commonjs', ignoreDynamic: true },
  },
];

const shared = {
  transform: { '^.+\\.tsx?$': swc },
  // Published as ES modules only; the tests run as CommonJS.
  transformIgnorePatterns: [
    '/node_modules/(?!(approx-string-match|intl-messageformat|@formatjs|cookie|htmlparser2|domhandler|domutils|dom-serializer|domelementtype|entities|idb-keyval|jose)/)',
  ],
  moduleNameMapper: {
    '^@salt-circle/(core|contracts)$': '<rootDir>/packages/$1/src/index.ts',
    '^@salt-circle/contracts/plain$': '<rootDir>/packages/contracts/src/plain.ts',
    '^@salt-circle/stand-in-platform$': '<rootDir>/apps/platform/src/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  rootDir: import.meta.dirname,
};
const js = {
  '^.+\\.m?js$': ['@swc/jest', { jsc: { target: 'es2023' }, module: { type: 'commonjs', ignoreDynamic: true } }],
};

export default {
  // Generous, because machines are slow at times; what matters here is never how long something takes.
  testTimeout: 600_000,
  // Each application that a test starts leaves something behind: a process that has grown is begun anew.
  workerIdleMemoryLimit: '700MB',
  projects: [
    {
      ...shared,
      displayName: 'core',
      transform: { ...shared.transform, ...js },
      testMatch: ['<rootDir>/packages/*/src/**/*.test.ts'],
    },
    {
      ...shared,
      displayName: 'web',
      transform: { ...shared.transform, ...js },
      testEnvironment: 'jest-fixed-jsdom',
      testMatch: ['<rootDir>/apps/web/src/**/*.test.{ts,tsx}'],
    },
    {
      ...shared,
      displayName: 'server',
      transform: { ...shared.transform, ...js },
      setupFiles: ['reflect-metadata'],
      setupFilesAfterEnv: ['<rootDir>/apps/server/src/testing/kept-threads.ts'],
      // All at once by shards, which load the application once for several files; one file by its name.
      testMatch: [`<rootDir>/apps/server/src/**/*.${process.env['TEST_SHARDS'] === '1' ? 'shard' : 'spec'}.ts`],
    },
    {
      ...shared,
      displayName: 'attacks',
      transform: { ...shared.transform, ...js },
      moduleFileExtensions: ['mjs', 'js', 'ts', 'json', 'node'],
      testMatch: ['<rootDir>/attacks/*.test.mjs'],
    },
  ],
};
