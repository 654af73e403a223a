import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { seededRandom } from '@unto/core';
import type { ControllerAction, ControllerState, Program, Scene } from '@unto/contract';
import { SimulatedCamera } from './camera/camera.js';
import { COUPON_FAULTS, type CouponFault } from './camera/coupon-photo.js';
import { TRAY_FAULTS, type TrayFault } from './camera/tray-photo.js';
import {
  CONTROLLER_FAULTS,
  PACES,
  Refused,
  SimulatedController,
  type ControllerFault,
  type Pace,
} from './controller/controller.js';
import { SCALE_FAULTS, SimulatedScale, type ScaleFault } from './scale/scale.js';
import { COAT_FAULTS, coatSpoilt, type CoatFault } from './ground-truth/coat-film.js';

/** The simulated devices of a bench. */
interface Devices {
  readonly scale: SimulatedScale;
  readonly camera: SimulatedCamera;
  readonly controller: SimulatedController;
}

/** The simulated devices behind one loopback address, with a page on which a person may make them misbehave. */
export function simulatorServer(seed: number): Server {
  const devices = {
    scale: new SimulatedScale(seededRandom(seed)),
    camera: new SimulatedCamera(seededRandom(seed + 1)),
    controller: new SimulatedController(() => performance.now() / 1000),
  };
  return createServer((request, response) => {
    answer(devices, request, response).catch((error: unknown) => {
      const says = error instanceof Refused || error instanceof SyntaxError;
      send(response, says ? 409 : 500, { detail: says ? error.message : String(error) });
    });
  });
}

async function answer(devices: Devices, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const path = new URL(request.url ?? '/', 'http://simulators').pathname;
  if (request.method === 'GET' && path === '/') return page(devices, response);
  // What a person sees in the newest picture, for those who test as one.
  if (request.method === 'GET' && path === '/camera/outline') return send(response, 200, devices.camera.outline);
  // What it was sent and began, for those who count whether anything was begun twice.
  if (request.method === 'GET' && path === '/controller/begun') return send(response, 200, devices.controller.begun);
  if (request.method !== 'POST') return send(response, 404, { detail: 'Nothing here.' });
  const body = await bodyOf(request);
  const chosen = CHOICES.find((one) => one.path === path);
  if (chosen) return choose(response, body, chosen, devices);
  if (path.startsWith('/scene/')) return send(response, 200, lay(JSON.parse(body) as Scene, devices));
  const { scale, camera, controller } = devices;
  // An unplugged device says nothing at all.
  const silent = () => void request.socket.destroy();
  if (path === '/scale/weigh') {
    const reading = scale.weigh();
    return reading ? send(response, 200, reading) : silent();
  }
  if (path === '/camera/picture') {
    if (camera.coupon === 'unplugged') return silent();
    const picture = await camera.take({
      blankOf: (scene) => controller.look(scene),
      blanksOf: (scene) => controller.lookAtTray(scene),
      filmOf: (batch) => scale.filmOf(batch),
    });
    response.writeHead(200, { 'content-type': 'image/jpeg' }).end(picture);
    return;
  }
  const asked = /^\/controller\/(program|state|pause|resume|stop)$/.exec(path)?.[1];
  if (!asked) return send(response, 404, { detail: 'Nothing here.' });
  if (!controller.answers) return silent();
  const state = ask(controller, asked, body);
  // It may drop in this very moment.
  const lost = asked === 'program' ? controller.fault === 'answer lost' : asked === 'state' && !controller.answers;
  return lost ? silent() : send(response, 200, state);
}

function ask(controller: SimulatedController, asked: string, body: string): ControllerState {
  if (asked === 'program') return controller.send(JSON.parse(body) as Program);
  return asked === 'state' ? controller.state() : controller.act(asked as ControllerAction);
}

/** Lays what a device is to find: on the pan, before the camera, or under the head with the coat as it was weighed and as it looks. */
function lay(scene: Scene, { scale, camera, controller }: Devices): object {
  if (scene.at === 'scale') scale.put(scene);
  else if (scene.at === 'camera') camera.place(scene);
  else {
    const laid = scale.filmOf(scene.setup.batch);
    const spoilt = coatSpoilt(camera.scene, scene.setup.blank);
    controller.lay(scene, (u, v) => laid * spoilt(u, v));
  }
  return {};
}

/** What a person may choose on the page. */
interface Choice {
  readonly path: string;
  readonly title: string;
  readonly known: readonly string[];
  now(devices: Devices): string;
  take(devices: Devices, choice: string): void;
}

const CHOICES: readonly Choice[] = [
  {
    path: '/scale/fault',
    title: 'Scale',
    known: SCALE_FAULTS,
    now: ({ scale }) => scale.fault,
    take: ({ scale }, choice) => (scale.fault = choice as ScaleFault),
  },
  {
    path: '/camera/scene',
    title: 'What the camera sees of a coat',
    known: COAT_FAULTS,
    now: ({ camera }) => camera.scene,
    take: ({ camera }, choice) => (camera.scene = choice as CoatFault),
  },
  {
    path: '/camera/coupon',
    title: 'What the camera sees of a coupon',
    known: COUPON_FAULTS,
    now: ({ camera }) => camera.coupon,
    take: ({ camera }, choice) => (camera.coupon = choice as CouponFault),
  },
  {
    path: '/camera/tray',
    title: 'What the camera sees of a tray',
    known: TRAY_FAULTS,
    now: ({ camera }) => camera.tray,
    take: ({ camera }, choice) => (camera.tray = choice as TrayFault),
  },
  {
    path: '/controller/fault',
    title: 'Controller',
    known: CONTROLLER_FAULTS,
    now: ({ controller }) => controller.fault,
    take: ({ controller }, choice) => (controller.fault = choice as ControllerFault),
  },
  {
    path: '/controller/power',
    title: 'Power of the controller',
    known: ['on', 'off and on again'],
    now: () => 'on',
    take: ({ controller }) => controller.restart(),
  },
  {
    path: '/controller/pace',
    title: 'Times faster than a real head',
    known: PACES,
    now: ({ controller }) => controller.pace,
    take: ({ controller }, choice) => (controller.pace = choice as Pace),
  },
];

/** Takes `choice` of a form if it is one of those known, and shows the page again. */
function choose(response: ServerResponse, body: string, { known, take }: Choice, devices: Devices): void {
  const choice = new URLSearchParams(body).get('choice') ?? '';
  if (!known.includes(choice)) return send(response, 422, { detail: 'No such choice.' });
  take(devices, choice);
  response.writeHead(303, { location: '/' }).end();
}

function page(devices: Devices, response: ServerResponse): void {
  const form = ({ path, title, known, now }: Choice) =>
    `<h2>${title}</h2><form method="post" action="${path}">${known.map((one) => `<button name="choice" value="${one}"${one === now(devices) ? ' disabled' : ''}>${one === 'none' ? 'in order' : one}</button>`).join(' ')}</form>`;
  response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' });
  response.end(
    `<!doctype html><html lang="en"><title>Stand-in devices</title><body><h1>Stand-in devices</h1>${CHOICES.map(form).join('')}`,
  );
}

function send(response: ServerResponse, status: number, body: unknown): void {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
}

async function bodyOf(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString('utf8');
}
