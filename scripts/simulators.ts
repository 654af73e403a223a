import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { simulatorServer } from '@unto/simulators/serve';

/** Launches the simulated devices on loopback: UNTO_SIMULATOR_PORT (0 takes a free one). */
const server = simulatorServer(1911);
server.listen(Number(process.env['UNTO_SIMULATOR_PORT'] ?? 0), '127.0.0.1');
await once(server, 'listening');
process.stdout.write(`SIMULATORS LISTEN ON http://127.0.0.1:${(server.address() as AddressInfo).port}\n`);
const stop = () => {
  server.closeAllConnections();
  server.close(() => process.exit(0));
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
if (process.env['UNTO_ENDS_WITH_INPUT']) process.stdin.resume().on('end', stop);
