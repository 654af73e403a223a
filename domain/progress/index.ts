export * from './running-timers.js';
export * from './station-states.js';
