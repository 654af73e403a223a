import { page } from '../fields/index.js';
import { createStatedSetting, listStatedSettingsQuery, statedSetting } from './stated-settings.js';
import { route } from '../routing/index.js';

export const statedSettingRoutes = {
  listStatedSettings: route({
    method: 'get',
    path: '/api/stated-settings',
    summary: 'Stated settings, newest first, by cursor',
    params: {},
    query: listStatedSettingsQuery,
    answer: page(statedSetting),
  }),
  createStatedSetting: route({
    method: 'post',
    path: '/api/stated-settings',
    summary: 'Keep a stated setting',
    params: {},
    body: createStatedSetting,
    answer: statedSetting,
  }),
} as const;
