/** No file may need itself by way of others, not even for a type. `npx depcruise core server shared` says where. */
export default {
  forbidden: [{ name: 'no-circle', severity: 'error', from: {}, to: { circular: true } }],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.test.json' },
    doNotFollow: { path: 'node_modules' },
    includeOnly: '^(core|server|shared)/',
  },
}
