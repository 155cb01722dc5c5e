const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' } },
        target: 'es2022',
      },
      module: { type: 'es6' },
    },
  ],
}
const common = {
  transform,
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  testEnvironment: '<rootDir>/scripts/testEnvironment.mjs',
  transformIgnorePatterns: ['/node_modules/(?!@upper-field/)'],
  modulePathIgnorePatterns: ['/dist/', '/\\.local/'],
}

export default {
  // Nothing is hurried: on a busy machine all takes many times as long, and only what never comes is a failure.
  testTimeout: 600_000,
  // What a file leaves behind adds up in a worker: it is started anew before its memory is full.
  workerIdleMemoryLimit: '1GB',
  projects: [
    {
      ...common,
      displayName: 'unit',
      testMatch: [
        '<rootDir>/packages/**/*.test.ts',
        '<rootDir>/apps/{web,standins}/test/**/*.test.{ts,tsx}',
        '<rootDir>/demo/test/**/*.test.ts',
        '<rootDir>/apps/server/test/unit/**/*.test.ts',
      ],
    },
    { ...common, displayName: 'integration', testMatch: ['<rootDir>/apps/server/test/integration/**/*.test.ts'] },
  ],
}
