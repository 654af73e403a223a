import { outcomeOf, type Task } from './tasks.js';

/** What a thread of the pool runs for each task. */
export default (task: Task) => outcomeOf(task);
