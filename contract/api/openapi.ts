import { convertSchema } from '@sodaru/yup-to-json-schema';
import type { Schema } from 'yup';
import { isFileAnswer, type Route } from '../routing/index.js';
import { PROBLEMS } from './problems.js';
import { ROUTES } from './routes.js';

type JsonSchema = Record<string, unknown>;

/** A Yup schema as JSON Schema; a record that goes by its kind becomes one of its shapes. */
export function jsonSchemaOf(schema: Schema): JsonSchema {
  const mixed = (description: { meta?: { alternatives?: readonly Schema[]; values?: Schema }; nullable?: boolean }) => {
    const { alternatives, values } = description.meta ?? {};
    const shape = alternatives
      ? { oneOf: alternatives.map(jsonSchemaOf) }
      : values
        ? { type: 'object', additionalProperties: jsonSchemaOf(values) }
        : {};
    return description.nullable ? { anyOf: [shape, { type: 'null' }] } : shape;
  };
  return withNull(convertSchema(schema as never, { converters: { mixed } as never }) as JsonSchema) as JsonSchema;
}

/** A word that may be null has null among its words: the converter leaves it out. */
function withNull(schema: unknown): unknown {
  if (Array.isArray(schema)) return schema.map(withNull);
  if (typeof schema !== 'object' || schema === null) return schema;
  const { type, enum: words } = schema as { type?: unknown; enum?: unknown[] };
  const nullable = Array.isArray(type) && type.includes('null') && Array.isArray(words) && !words.includes(null);
  const parts = Object.entries(schema).map(([key, part]) => [key, withNull(part)]);
  return { ...Object.fromEntries(parts), ...(nullable ? { enum: [...words, null] } : {}) };
}

/** The OpenAPI 3.1 document of the whole API, generated from the routes and their schemas. */
export function openApiDocument() {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, route] of Object.entries(ROUTES) as [string, Route][]) {
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[route.method] = operation(name, route);
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Unto', version: '1', description: 'Writes name their operator in the header X-Unto-Operator.' },
    paths,
    components: {
      schemas: {
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'detail'],
          properties: {
            type: { type: 'string', enum: Object.keys(PROBLEMS) },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            faults: { type: 'array', items: { type: 'object' } },
            current: {},
            incident: { type: 'string' },
          },
        },
      },
    },
  };
}

function operation(name: string, route: Route) {
  const inPath = Object.entries(route.params).map(([key, schema]) => ({
    name: key,
    in: 'path',
    required: true,
    schema: jsonSchemaOf(schema),
  }));
  const query = route.query ? (jsonSchemaOf(route.query)['properties'] as Record<string, JsonSchema>) : {};
  const inQuery = Object.entries(query).map(([key, schema]) => ({ name: key, in: 'query', schema }));
  return {
    operationId: name,
    summary: route.summary,
    parameters: [...inPath, ...inQuery],
    ...requestBody(route),
    responses: {
      200: { description: 'Done', content: answerContent(route) },
      default: {
        description: 'Refused',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}

function requestBody({ body, takesFile }: Route) {
  if (takesFile)
    return { requestBody: { required: true, content: { 'application/octet-stream': { schema: { type: 'string' } } } } };
  return body
    ? { requestBody: { required: true, content: { 'application/json': { schema: jsonSchemaOf(body) } } } }
    : {};
}

function answerContent({ answer }: Route) {
  return isFileAnswer(answer)
    ? { [answer.media]: { schema: { type: 'string', format: 'binary' } } }
    : { 'application/json': { schema: jsonSchemaOf(answer) } };
}
