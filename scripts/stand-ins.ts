import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { standInServer } from '@unto/stand-ins/serve';

/** Launches the simulated devices on loopback: UNTO_STAND_IN_PORT (0 takes a free one). */
const server = standInServer(1911);
server.listen(Number(process.env['UNTO_STAND_IN_PORT'] ?? 0), '127.0.0.1');
await once(server, 'listening');
process.stdout.write(`STAND-INS LISTEN ON http://127.0.0.1:${(server.address() as AddressInfo).port}\n`);
const stop = () => {
  server.closeAllConnections();
  server.close(() => process.exit(0));
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
