import type {
  BurnSetup,
  ControllerAction,
  ControllerJob,
  ControllerReport,
  CouponScene,
  JobState,
} from '@unto/contract';
import { BurntBlank, EVEN, readProgram, runTimes, type BlankPicture, type TimedMove } from '../burn/index.js';
import type { FilmTruth } from '../ground-truth/coat-film.js';

/** What can be wrong with a head: its connection, or an air assist that nobody turned off. */
export const CONTROLLER_FAULTS = ['none', 'drops half way', 'unplugged', 'air assist on'] as const;
export type ControllerFault = (typeof CONTROLLER_FAULTS)[number];

/** How many times faster than a real head the simulated one runs. */
export const PACES = ['1', '20', '400', '20000'] as const;
export type Pace = (typeof PACES)[number];

/** A controller that runs what it is sent, and nothing else: it reads the program, moves under its own limits and burns along the path. */
export class SimulatedController {
  fault: ControllerFault = 'none';
  private paceNow: Pace = '20';
  private readonly blanks = new Map<string, BurntBlank>();
  private job: Running | null = null;

  /** @param now seconds on any steady clock */
  constructor(private readonly now: () => number) {}

  get pace(): Pace {
    return this.paceNow;
  }

  set pace(pace: Pace) {
    this.advance();
    this.paceNow = pace;
  }

  /**
   * @param film the coat on the blank, as a multiple of a good one
   * @throws Error for a program that is not understood, naming its line
   */
  send(job: ControllerJob, film: FilmTruth = EVEN): ControllerReport {
    this.advance();
    const moves = runTimes(readProgram(job.program), job.setup);
    const blank = this.blanks.get(job.setup.key) ?? new BurntBlank(job.setup, film);
    this.blanks.set(job.setup.key, blank);
    this.job = { id: job.id, moves, blank, at: 0, elapsedS: 0, state: 'running', seenAt: this.now() };
    return this.report();
  }

  act(action: ControllerAction): ControllerReport {
    this.advance();
    const { job } = this;
    if (job && action === 'pause' && job.state === 'running') job.state = 'paused';
    else if (job && action === 'resume' && (job.state === 'paused' || job.state === 'waiting')) {
      if (job.state === 'waiting') job.at += 1;
      job.state = 'running';
      job.seenAt = this.now();
    } else if (job && action === 'stop' && job.state !== 'done') job.state = 'stopped';
    return this.report();
  }

  report(): ControllerReport {
    this.advance();
    const { job } = this;
    if (!job) return { id: '', state: 'idle', elapsedS: 0, totalS: 0, cellsDone: [], cell: null, message: '' };
    const here = job.moves[job.at];
    return {
      id: job.id,
      state: job.state,
      elapsedS: job.elapsedS,
      totalS: job.moves.at(-1)?.endsS ?? 0,
      cellsDone: cellsDone(job),
      cell: here && here.cell >= 0 && job.state !== 'done' ? here.cell : null,
      message: job.state === 'waiting' ? (here?.message ?? '') : '',
    };
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
    job.blank.burn(job.moves.slice(from, job.at), { air: this.fault === 'air assist on' });
    if (job.state === 'running' && job.at >= job.moves.length) {
      job.state = 'done';
      job.elapsedS = total;
    }
  }

  private isHalfWay(): boolean {
    return this.job?.state === 'stopped';
  }
}

interface Running {
  readonly id: string;
  readonly moves: readonly TimedMove[];
  readonly blank: BurntBlank;
  /** The move it is at. */
  at: number;
  elapsedS: number;
  state: JobState;
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
