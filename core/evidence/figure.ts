/**
 * Grades of evidence, strongest first. `measured` is a direct reading or arithmetic on readings alone;
 * the others grade claims about marking.
 */
export const GRADES = ['measured', 'proved', 'proved by eye', 'seen', 'carried', 'stated', 'usual', 'guess'] as const;
export type Grade = (typeof GRADES)[number];

/** A record (and its revision) that a number rests on. */
export interface RecordRef {
  readonly kind: string;
  readonly id: string;
  readonly revision?: number | undefined;
}

/** One thing a figure was computed from. Only decisive inputs bear on its grade. */
export interface FigureInput {
  readonly label: string;
  readonly value?: number | string | undefined;
  readonly unit?: string | undefined;
  readonly grade: Grade;
  readonly decisive: boolean;
  /** Of a value nobody has said: true nine times in ten between itself ÷ and × this. */
  readonly factor?: number | undefined;
  readonly ref?: RecordRef | undefined;
}

/** An interval that should hold the value with the given share (0.9 = nine times in ten). */
export interface Interval {
  readonly low: number;
  readonly high: number;
  readonly level: number;
}

/** A planned, computed or read number together with what it rests on. `formula` names a function of the core. */
export interface Figure {
  readonly value: number;
  readonly unit: string;
  readonly interval?: Interval | undefined;
  readonly grade: Grade;
  readonly formula: string;
  readonly inputs: readonly FigureInput[];
}

/** The weakest of some grades; `guess` when there is none, for a claim that rests on nothing. */
export function weakestGrade(grades: readonly Grade[]): Grade {
  if (grades.length === 0) return 'guess';
  const weakest = Math.max(...grades.map((grade) => GRADES.indexOf(grade)));
  return GRADES[weakest]!;
}

/**
 * Makes a figure; its grade is the weakest among its decisive inputs.
 * @example makeFigure({ formula: 'arealDose', value: 3.6, unit: 'J/mm²', inputs: [] }).grade // 'guess'
 */
export function makeFigure(draft: Omit<Figure, 'grade'>): Figure {
  const decisive = draft.inputs.filter((input) => input.decisive).map((input) => input.grade);
  return { ...draft, grade: weakestGrade(decisive) };
}

/** A decisive input. */
export function decisive(
  label: string,
  grade: Grade,
  rest: { value?: number | string | undefined; unit?: string | undefined; ref?: RecordRef | undefined } = {},
): FigureInput {
  return { label, grade, decisive: true, ...rest };
}

/** An input that widens the interval but does not set the grade (handbook constants, priors). */
export function supporting(
  label: string,
  grade: Grade,
  rest: { value?: number | string | undefined; unit?: string | undefined; ref?: RecordRef | undefined } = {},
): FigureInput {
  return { label, grade, decisive: false, ...rest };
}
