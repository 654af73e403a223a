import { statedSettingRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createStatedSetting, createStatedSettings, listStatedSettings } from './service.js';

export const statedSettingRouter = router(statedSettingRoutes, {
  listStatedSettings: (context, { query }) => listStatedSettings(context, query),
  createStatedSettings: (context, { body }) => createStatedSettings(context, body),
  createStatedSetting: (context, { body }) => createStatedSetting(context, body),
});
