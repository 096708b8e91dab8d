import { OpenAPIRegistry, OpenApiGeneratorV31 } from '@asteasolutions/zod-to-openapi';
import { z } from 'zod';
import { SCOPE_NAME } from '@/domain/scopes';
import { ADDRESSES, namesIn } from './paths';
import { Problems } from './shapes';

let made: unknown;

/** OpenAPI 3.1 of `/api/v1`, made from the list of addresses. */
export function openApiDocument(): unknown {
  if (made) return made;
  const registry = new OpenAPIRegistry();
  registry.registerComponent('securitySchemes', 'token', {
    type: 'http',
    scheme: 'bearer',
    description: 'A personal token with the scope named at each address, made on the account page.',
  });
  const json = (schema: z.ZodType, description: string) => ({
    description,
    content: { 'application/json': { schema } },
  });
  for (const { method, path, scope, summary, query, body, answer, refuses } of ADDRESSES) {
    const names = namesIn(path);
    registry.registerPath({
      method,
      path,
      summary,
      description: scope === 'any' ? 'Any scope: each kind by its own.' : `Scope ${scope}: ${SCOPE_NAME[scope]}.`,
      security: [{ token: scope === 'any' ? [] : [scope] }],
      request: {
        ...(names.length > 0 ? { params: z.object(Object.fromEntries(names.map((n) => [n, z.string()]))) } : {}),
        ...(query instanceof z.ZodObject ? { query } : {}),
        ...(body ? { body: { content: { 'application/json': { schema: body } } } } : {}),
      },
      responses: {
        200: json(answer, summary),
        403: json(Problems, 'The token was not given this scope.'),
        404: json(Problems, 'Not there, or not yours to see: the answer is the same.'),
        ...Object.fromEntries(Object.entries(refuses ?? {}).map(([status, what]) => [status, json(Problems, what)])),
      },
    });
  }
  made = new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: {
      title: 'Jeito',
      version: '1',
      description:
        'What another program reads of a school, with a token of somebody who may see it. Numbers carry their unit in ' +
        'the name; null is not known and never zero.',
    },
  });
  return made;
}
