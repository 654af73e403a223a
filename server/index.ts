export { createApp } from './app.js';
export type { AppDeps } from './deps.js';
export { connect } from './db/connect.js';
export { migrate, NewerSchemaError } from './db/migrate.js';
export { defineModels, type Models, type Rows } from './db/models.js';
export type { Context } from './db/context.js';
export { folderStore, type FileStore } from './files/file-store.js';
export { sweepFiles } from './files/service.js';
export { handlers } from './handlers.js';
