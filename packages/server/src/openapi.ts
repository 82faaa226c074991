/** The OpenAPI document, made from the contract's route table. */
import { OpenAPIRegistry, OpenApiGeneratorV31, extendZodWithOpenApi } from '@asteasolutions/zod-to-openapi';
import { problemDocumentSchema, problemMediaType, routes, tags, type Operation, type RouteDescription } from '@veglia/contract';
import { z } from 'zod';

extendZodWithOpenApi(z);

/** OpenAPI 3.1, from the table of routes. */
export function openApiDocument(version: string): object {
  const registry = new OpenAPIRegistry();
  for (const [operationId, route] of Object.entries(routes) as [Operation, RouteDescription][]) {
    registry.registerPath({
      operationId,
      tags: [route.tag],
      method: route.method,
      path: route.path.replace(/:(\w+)/g, '{$1}'),
      summary: route.summary,
      request: {
        ...(route.params ? { params: route.params } : {}),
        ...(route.query ? { query: route.query } : {}),
        ...(route.body ? { body: { required: true, content: { 'application/json': { schema: route.body } } } } : {}),
        ...(route.file ? { body: { required: true, content: { [route.file]: { schema: { type: 'string', format: 'binary' } } } } } : {}),
      },
      responses: {
        [route.status]: { description: 'Done', content: { [route.media ?? 'application/json']: { schema: route.reply } } },
        default: { description: 'Refused, or a fault of ours', content: { [problemMediaType]: { schema: problemDocumentSchema } } },
      },
    });
  }
  return new OpenApiGeneratorV31(registry.definitions).generateDocument({
    openapi: '3.1.0',
    info: { title: 'Veglia', version },
    tags: tags.map((name) => ({ name })),
  });
}
