import { statedSettingRoutes } from '@unto/contract';
import { router } from '../http/router.js';
import { createStatedSetting, listStatedSettings } from './service.js';

export const statedSettingRouter = router(statedSettingRoutes, {
  listStatedSettings: (context, { query }) => listStatedSettings(context, query),
  createStatedSetting: (context, { body }) => createStatedSetting(context, body),
});
