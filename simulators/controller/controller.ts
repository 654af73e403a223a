import type {
  BurnSetup,
  ControllerAction,
  ControllerState,
  CouponScene,
  HeadScene,
  LaidPiece,
  Program,
  TrayScene,
} from '@unto/contract';
import { seededRandom } from '@unto/core';
import { BurntBlank, EVEN, readProgram, runTimes, type BlankPicture, type TimedMove } from '../burn/index.js';
import type { FilmTruth } from '../ground-truth/coat-film.js';

/** What can be wrong with a head: its connection, or an air assist that nobody turned off. */
export const CONTROLLER_FAULTS = ['none', 'drops half way', 'unplugged', 'answer lost', 'air assist on'] as const;
export type ControllerFault = (typeof CONTROLLER_FAULTS)[number];

/** How many times faster than a real head the simulated one runs. */
export const PACES = ['1', '20', '400', '20000'] as const;
export type Pace = (typeof PACES)[number];

/** A controller that runs what it is sent, and nothing else: it reads the program, moves under its own limits and burns along the path. */
export class SimulatedController {
  fault: ControllerFault = 'none';
  private paceNow: Pace = '20';
  private readonly blanks = new Map<string, BurntBlank>();
  /** Names of the programs it began, oldest first. */
  readonly begun: string[] = [];
  private job: Running | null = null;
  private lies: HeadScene | null = null;
  private film: FilmTruth = EVEN;

  /** @param now seconds on any steady clock */
  constructor(private readonly now: () => number) {}

  get pace(): Pace {
    return this.paceNow;
  }

  set pace(pace: Pace) {
    this.advance();
    this.paceNow = pace;
  }

  /** Lays a blank under the head. @param film the coat on it, as a multiple of a good one */
  lay(lies: HeadScene, film: FilmTruth = EVEN): void {
    this.lies = lies;
    this.film = film;
  }

  /** @throws Refused while it runs another program, with nothing under the head, or for a program that is not understood, naming its line */
  send({ name, gcode }: Program): ControllerState {
    this.advance();
    if (this.job && ['running', 'paused', 'waiting'].includes(this.job.state)) throw new Refused('It runs a program.');
    if (!this.lies) throw new Refused('Nothing lies under the head.');
    const moves = runTimes(understood(gcode), this.lies.setup);
    this.begun.push(name);
    const laid = { lies: this.lies, film: this.film };
    this.job = { program: name, moves, ...laid, at: 0, elapsedS: 0, state: 'running', seenAt: this.now() };
    return this.state();
  }

  /** Switches it off and on again: the beam stops, and it knows of no program. */
  restart(): void {
    this.advance();
    this.job = null;
  }

  act(action: ControllerAction): ControllerState {
    this.advance();
    const { job } = this;
    if (job && action === 'pause' && job.state === 'running') job.state = 'paused';
    else if (job && action === 'resume' && (job.state === 'paused' || job.state === 'waiting')) {
      if (job.state === 'waiting') job.at += 1;
      job.state = 'running';
      job.seenAt = this.now();
    } else if (job && action === 'stop' && job.state !== 'done') job.state = 'stopped';
    return this.state();
  }

  state(): ControllerState {
    this.advance();
    const { job } = this;
    const switches = { air: this.hasAir, extraction: this.lies?.extraction ?? null };
    if (!job)
      return {
        program: '',
        state: 'idle',
        elapsedS: 0,
        totalS: 0,
        cellsDone: [],
        cell: null,
        message: '',
        ...switches,
      };
    const here = job.moves[job.at];
    return {
      program: job.program,
      state: job.state,
      elapsedS: job.elapsedS,
      totalS: job.moves.at(-1)?.endsS ?? 0,
      cellsDone: cellsDone(job),
      cell: here && here.cell >= 0 && job.state !== 'done' ? here.cell : null,
      message: job.state === 'waiting' ? (here?.message ?? '') : '',
      ...switches,
    };
  }

  /** Whether air blows: as it was turned, or as nobody turned it off. */
  private get hasAir(): boolean | null {
    return this.fault === 'air assist on' ? true : (this.lies?.air ?? null);
  }

  /** Whether it answers just now. */
  get answers(): boolean {
    this.advance();
    return this.fault !== 'unplugged' && !(this.fault === 'drops half way' && this.isHalfWay());
  }

  /** The blank of a scene as it looks; burnt by its program where it never lay under this head. */
  look({ setup, stage, program }: CouponScene): BlankPicture {
    this.advance();
    let blank = this.blanks.get(setup.key);
    if (!blank) this.blanks.set(setup.key, (blank = burntBy(program, setup)));
    return blank.look(stage);
  }

  /** The pieces of a tray as they look; those that never lay under this head burnt by their program. */
  lookAtTray({ setup, stage, program, pieces }: TrayScene): BlankPicture[] {
    this.advance();
    const unknown = pieces.filter(({ part }) => !this.blanks.has(pieceKey(setup.key, part)));
    if (unknown.length)
      this.burn(
        { lies: { setup, pieces: unknown, air: null, extraction: null }, film: EVEN },
        runTimes(readProgram(program), setup),
      );
    return pieces.map(({ part }) => this.blankOf({ ...setup, key: pieceKey(setup.key, part) }, EVEN).look(stage));
  }

  /** Runs on to now. A dropped connection stops the head: its beam is off without the host. */
  private advance(): void {
    const { job } = this;
    if (job?.state !== 'running') return;
    const now = this.now();
    job.elapsedS += (now - job.seenAt) * Number(this.paceNow);
    job.seenAt = now;
    const total = job.moves.at(-1)?.endsS ?? 0;
    if (this.fault === 'drops half way' && job.elapsedS >= total / 2) {
      job.elapsedS = total / 2;
      job.state = 'stopped';
    }
    const from = job.at;
    while (job.at < job.moves.length && job.moves[job.at]!.endsS <= job.elapsedS) {
      if (job.moves[job.at]!.kind === 'stop') {
        job.elapsedS = job.moves[job.at]!.endsS;
        job.state = 'waiting';
        break;
      }
      job.at += 1;
    }
    this.burn(job, job.moves.slice(from, job.at));
    if (job.state === 'running' && job.at >= job.moves.length) {
      job.state = 'done';
      job.elapsedS = total;
    }
  }

  /** Burns moves into what lies there: the one blank, or each piece its own. */
  private burn({ lies: { setup, pieces }, film }: Laid, moves: readonly TimedMove[]): void {
    const air = { air: this.hasAir === true };
    if (!pieces) return this.blankOf(setup, film).burn(moves, air);
    for (const { part, ...place } of pieces) {
      const key = pieceKey(setup.key, part);
      const slack = slackOf(key);
      const own = moves.filter(({ cell }) => cell === part).map((move) => onPiece(move, place, slack));
      if (own.length) this.blankOf({ ...setup, key }, film).burn(own, air);
    }
  }

  private blankOf(setup: BurnSetup, film: FilmTruth): BurntBlank {
    let blank = this.blanks.get(setup.key);
    if (!blank) this.blanks.set(setup.key, (blank = new BurntBlank(setup, film)));
    return blank;
  }

  private isHalfWay(): boolean {
    return this.job?.state === 'stopped';
  }
}

/** A controller says no, and does nothing. */
export class Refused extends Error {}

function understood(gcode: string) {
  try {
    return readProgram(gcode);
  } catch (error) {
    throw new Refused((error as Error).message);
  }
}

/** No piece lies in its place of the jig quite as the last did, mm. */
const SLACK_MM = 0.3;

function slackOf(key: string): { readonly x: number; readonly y: number } {
  const random = seededRandom([...key].reduce((sum, letter) => (31 * sum + letter.charCodeAt(0)) | 0, 7));
  return { x: SLACK_MM * (2 * random() - 1), y: SLACK_MM * (2 * random() - 1) };
}

const pieceKey = (key: string, part: number) => `${key}/${part}`;

/** A move as the piece sees it that lies in its place of the jig, but for some slack. */
function onPiece(
  move: TimedMove,
  { xMm, yMm, turnDeg = 0 }: Omit<LaidPiece, 'part'>,
  slack: { readonly x: number; readonly y: number },
): TimedMove {
  const turn = (turnDeg * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const own = (x: number, y: number) => [
    c * (x - xMm) + s * (y - yMm) + slack.x,
    c * (y - yMm) - s * (x - xMm) + slack.y,
  ];
  const [[x0, y0], [x1, y1]] = [own(move.x0, move.y0), own(move.x1, move.y1)] as [[number, number], [number, number]];
  return { ...move, x0, y0, x1, y1 };
}

/** What lay under the head as a program began, and its coat. */
interface Laid {
  readonly lies: HeadScene;
  readonly film: FilmTruth;
}

interface Running extends Laid {
  readonly program: string;
  readonly moves: readonly TimedMove[];
  /** The move it is at. */
  at: number;
  elapsedS: number;
  state: ControllerState['state'];
  seenAt: number;
}

function cellsDone({ moves, at }: Running): number[] {
  const begun = new Set(moves.slice(0, at).map(({ cell }) => cell));
  const left = new Set(moves.slice(at).flatMap(({ cell, power }) => (power > 0 ? [cell] : [])));
  return [...begun].filter((cell) => cell >= 0 && !left.has(cell)).sort((a, b) => a - b);
}

function burntBy(program: string, setup: BurnSetup): BurntBlank {
  const blank = new BurntBlank(setup);
  blank.burn(runTimes(readProgram(program), setup));
  return blank;
}
