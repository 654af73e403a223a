import { list, page } from '../fields/index.js';
import {
  createStatedSetting,
  createStatedSettings,
  listStatedSettingsQuery,
  statedSetting,
} from './stated-settings.js';
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
  createStatedSettings: route({
    method: 'post',
    path: '/api/stated-settings/several',
    summary: 'Keep the stated settings of an old sheet, all or none',
    params: {},
    body: createStatedSettings,
    answer: list(statedSetting),
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
