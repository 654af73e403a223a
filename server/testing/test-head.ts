import type { Controller, ControllerAction, ControllerState, Program } from '@unto/contract';

/** A controller of tests: what it was sent and told, and what it says next. */
export class TestHead implements Controller {
  readonly sent: Program[] = [];
  readonly told: ControllerAction[] = [];
  /** It does not answer. */
  away = false;
  /** It takes what it is sent, and its answer is lost. */
  mute = false;
  /** What happens while a program is being given to it. */
  meanwhile: (program: Program) => Promise<void> = async () => undefined;
  says: Partial<ControllerState> = {};
  /** What it says from the next program on; null for as before. */
  whenSent: Partial<ControllerState> | null = null;
  /** What it says once it was told something. */
  readonly whenTold: Partial<Record<ControllerAction, Partial<ControllerState>>> = {};

  send = async (program: Program) => {
    await this.meanwhile(program);
    this.sent.push(program);
    this.says = this.whenSent ?? this.says;
    if (this.mute) throw new Error('no answer');
    return this.answer();
  };
  state = async () => this.answer();
  pause = () => this.tell('pause');
  resume = () => this.tell('resume');
  stop = () => this.tell('stop');

  private async tell(action: ControllerAction) {
    this.answer();
    this.told.push(action);
    this.says = this.whenTold[action] ?? this.says;
    return this.answer();
  }
  private answer(): ControllerState {
    if (this.away) throw new Error('away');
    const program = this.sent.at(-1)?.name ?? '';
    return {
      ...{ program, state: program ? 'running' : 'idle', elapsedS: 3, totalS: 90, cellsDone: [], cell: null },
      ...{ message: '', air: null, extraction: null },
      ...this.says,
    };
  }
}
