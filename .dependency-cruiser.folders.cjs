/** Folders of a package stand above one another: none may need, however far round, what needs it. Tests may look anywhere. */
const whole = require('./.dependency-cruiser.cjs');

module.exports = {
  forbidden: ['core', 'contract', 'domain', 'server', 'simulators', 'web', 'demo'].map((room) => ({
    name: `no-folder-circle-in-${room}`,
    severity: 'error',
    scope: 'folder',
    from: { path: `^${room}/[^/]+$` },
    to: { path: `^${room}/[^/]+$`, circular: true },
  })),
  options: { ...whole.options, exclude: { path: `${whole.options.exclude.path}|\\.test\\.ts$|/testing/` } },
};
