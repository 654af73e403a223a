/** The part of fmin that the benchmark compares with. Its build is a script that leaves itself on the global object. */
declare module 'fmin' {}
// eslint-disable-next-line no-var
declare var fmin: {
  nelderMead(
    loss: (x: number[]) => number,
    start: number[],
    options?: { maxIterations?: number },
  ): { x: number[]; fx: number };
};
