import { OpenAPIRegistry, OpenApiGeneratorV31 } from '@asteasolutions/zod-to-openapi';
import { z } from 'zod';
import { BriefChoices } from '@/domain/brief';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { TraceAnalysis, TraceContext } from '@/domain/trace';

/** Shapes of the HTTP interface. The document is generated from them: what is documented is what is checked. */
export const Problems = z.object({
  message: z.string(),
  problems: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export const TypeAnswer = z.object({
  code: z.string(),
  version: z.number().int(),
  author: z.string(),
  reason: z.string(),
  createdAt: z.string(),
  sheet: TypeSheet,
});
export const TypeList = z.array(
  z.object({ code: z.string(), name: z.string(), version: z.number().int(), airframes: z.array(z.string()) }),
);
export const TypeImport = z.object({ baseVersion: z.number().int().min(0), reason: z.string(), sheet: TypeSheet });
export const AirframeAnswer = z.object({
  registration: z.string(),
  typeCode: z.string(),
  version: z.number().int(),
  airframe: Airframe,
});
export const BriefAnswer = z.object({
  id: z.string(),
  checkoutId: z.string(),
  lesson: z.number().int(),
  version: z.number().int(),
  savedAt: z.string(),
  choices: BriefChoices,
  card: z.object({
    title: z.string(),
    line: z.string(),
    revision: z.string(),
    warnings: z.array(z.string()),
    gates: z.array(
      z.object({
        name: z.string(),
        speed: z.string(),
        height: z.string(),
        altimeter: z.string(),
        configuration: z.string(),
        power: z.string(),
      }),
    ),
    caution: z.string(),
  }),
});
export const TraceAnswer = z.object({
  id: z.string(),
  checkoutId: z.string(),
  lesson: z.number().int(),
  flownOn: z.string(),
  registration: z.string(),
  startUtc: z.string().nullable(),
  context: TraceContext,
  analysis: TraceAnalysis,
});
export const TraceQuestion = z.object({
  text: z.string(),
  context: TraceContext,
  mapping: z.record(z.string(), z.object({ channel: z.string(), unit: z.string().nullable() })).nullish(),
});

let made: unknown;

/** OpenAPI 3.1 of `/api/v1`. */
export function openApiDocument(): unknown {
  if (made) return made;
  const registry = new OpenAPIRegistry();
  registry.registerComponent('securitySchemes', 'token', {
    type: 'http',
    scheme: 'bearer',
    description: 'A personal token, made on the account page. A signed-in browser session works too.',
  });
  const json = (schema: z.ZodType, description: string) => ({
    description,
    content: { 'application/json': { schema } },
  });
  const nothing = json(Problems, 'Not there, or not yours to see: the answer is the same.');
  const get = (path: string, summary: string, schema: z.ZodType, params?: z.ZodObject) =>
    registry.registerPath({
      method: 'get',
      path,
      summary,
      security: [{ token: [] }],
      ...(params ? { request: { params } } : {}),
      responses: { 200: json(schema, summary), 404: nothing },
    });
  const code = z.object({ code: z.string() });
  get('/api/v1/types', 'Type sheets, newest version of each', TypeList);
  get('/api/v1/types/{code}', 'One type sheet, newest version', TypeAnswer, code);
  registry.registerPath({
    method: 'put',
    path: '/api/v1/types/{code}',
    summary: 'Import a type sheet as a new version (chief)',
    security: [{ token: [] }],
    request: { params: code, body: { content: { 'application/json': { schema: TypeImport } } } },
    responses: {
      200: json(z.object({ version: z.number().int(), unchanged: z.boolean() }), 'Saved'),
      400: json(Problems, 'What does not fit, field by field'),
      404: nothing,
    },
  });
  get('/api/v1/airframes', 'Every registration', z.array(AirframeAnswer));
  get(
    '/api/v1/airframes/{registration}',
    'What differs on one registration',
    AirframeAnswer,
    z.object({ registration: z.string() }),
  );
  get(
    '/api/v1/briefs/{id}',
    'A stored brief: what was chosen, and the card as it prints',
    BriefAnswer,
    z.object({ id: z.string() }),
  );
  get('/api/v1/traces/{id}', 'A kept recording: its context and analysis', TraceAnswer, z.object({ id: z.string() }));
  registry.registerPath({
    method: 'post',
    path: '/api/v1/traces/analyse',
    summary:
      'Analyse a recording without keeping it: JSON, or a form with file (CSV, GPX, IGC, gzipped or not), context and mapping',
    security: [{ token: [] }],
    request: { body: { content: { 'application/json': { schema: TraceQuestion } } } },
    responses: {
      200: json(TraceAnalysis, 'What was found'),
      400: json(Problems, 'The context or the mapping does not fit'),
      404: nothing,
      413: json(Problems, 'Too long'),
      422: json(Problems, 'The file cannot be read, and why'),
    },
  });
  made = new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: {
      title: 'Jeito',
      version: '1',
      description:
        'Read type sheets, airframes and briefs; import type sheets. Numbers carry their unit in the name and their source beside them.',
    },
  });
  return made;
}
