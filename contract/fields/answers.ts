import {
  array,
  boolean,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type InferType,
  type ObjectShape,
  type Schema,
} from 'yup';
import { GRADES } from '@unto/core';

/** Pieces that schemas of answers are made of: what is there is said, nothing is filled in. */

/** A record with these fields and no others. */
export const record = <S extends ObjectShape>(fields: S) => object(fields).noUnknown();

/** Several of something, perhaps none. */
export const list = <S extends Schema>(of: S) => array().of<InferType<S>>(of).required();

/** A page of a list, and the cursor that brings the next; null at the end. */
export const page = <S extends Schema>(of: S) => record({ records: list(of), next: string().defined().nullable() });

/** Text, perhaps empty. */
export const words = () => string().defined();
export const amount = () => number().required();
export const flag = () => boolean().required();
/** One of some words. */
export const word = <T extends string>(values: readonly T[]) =>
  string<T>()
    .defined()
    .oneOf([...values]);

/** A moment of server time, ISO 8601. */
export const instant = () =>
  string()
    .required()
    .test('instant', '${path} is no moment.', (value) => value == null || !Number.isNaN(Date.parse(value)));

/** Who did it: an operator’s id. */
export const who = () => string().required();

export const gradeWord = () => word(GRADES);

/** Something or nothing. */
export const orNull = <S extends Schema>(schema: S) => schema.nullable().defined() as Schema<InferType<S> | null>;

/** A value by a key that nobody knows beforehand. */
export function byKey<T>(of: Schema<T>) {
  return mixed<Record<string, T>>((value): value is Record<string, T> => typeof value === 'object' && value !== null)
    .required()
    .meta({ values: of })
    .test(
      'values',
      '${path} holds something else.',
      (value) => value == null || Object.values(value).every((one) => of.isValidSync(one, { strict: true })),
    );
}

/** A record whose shape follows from one of its own fields: `kind` says which schema each of the others has. */
export function byKind<T extends AnyObject>(
  kind: keyof T & string,
  shapes: Readonly<Record<string, ObjectShape>>,
  shared: ObjectShape,
) {
  const whole = Object.fromEntries(
    Object.entries(shapes).map(([name, shape]) => [name, record({ ...shared, ...shape, [kind]: word([name]) })]),
  );
  return mixed<T>((value): value is T => typeof value === 'object' && value !== null)
    .required()
    .meta({ alternatives: Object.values(whole) })
    .test('kind', (value, context) => {
      if (value == null) return true;
      const schema = whole[String(value[kind])];
      if (!schema) return context.createError({ message: `${context.path} is of no known kind.` });
      try {
        schema.validateSync(value, { strict: true });
        return true;
      } catch (error) {
        return context.createError({ message: `${context.path}: ${(error as Error).message}` });
      }
    });
}

/** Says that a schema describes a type of the core; one that does not is refused by the compiler. */
export const describes =
  <T>() =>
  <S extends Schema<T>>(schema: S): Schema<T> =>
    schema;
