import { convertSchema } from '@sodaru/yup-to-json-schema';
import { PROBLEMS } from './problems.js';
import { ROUTES, type Route } from './routes.js';

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
  const inPath = [...route.path.matchAll(/:(\w+)/g)].map((match) => ({
    name: match[1],
    in: 'path',
    required: true,
    schema: { type: 'string' },
  }));
  const query = route.query
    ? (convertSchema(route.query as never) as { properties?: Record<string, unknown> })
    : undefined;
  const inQuery = Object.entries(query?.properties ?? {}).map(([key, schema]) => ({ name: key, in: 'query', schema }));
  return {
    operationId: name,
    summary: route.summary,
    parameters: [...inPath, ...inQuery],
    ...(route.body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: convertSchema(route.body as never) } },
          },
        }
      : {}),
    responses: {
      200: { description: 'Done', content: { [route.answers ?? 'application/json']: {} } },
      default: {
        description: 'Refused',
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    },
  };
}
