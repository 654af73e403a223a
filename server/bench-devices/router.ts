import { deviceRoutes, type DeviceJobKind } from '@unto/contract';
import { find } from '../db/context.js';
import { router } from '../http/router.js';
import { askOfDevice, deviceJob } from '../devices/ask-of-device.js';

export const deviceRouter = router(deviceRoutes, {
  devices: async ({ tied }) => tied,
  takePicture: async (context, { body }) => {
    await find(context, 'tickets', body.ticketId);
    return askOfDevice(context, 'picture', { of: 'coat', ...body });
  },
  weighOnScale: async (context, { body }) => {
    await find(context, 'tickets', body.ticketId);
    return askOfDevice(context, 'weigh', body);
  },
  deviceJob: (context, { params }) => deviceJob(context, params.kind as DeviceJobKind, params.id),
});
