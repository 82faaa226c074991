/** The OpenAPI document, made from the contract's route table. */
import { OpenAPIRegistry, OpenApiGeneratorV31, extendZodWithOpenApi } from '@asteasolutions/zod-to-openapi';
import { problemDocumentSchema, problemMediaType, routes } from '@veglia/contract';
import { z } from 'zod';

extendZodWithOpenApi(z);

export function openApiDocument(version: string): object {
  const registry = new OpenAPIRegistry();
  for (const route of routes) {
    registry.registerPath({
      method: route.method,
      path: route.path.replace(/:(\w+)/g, '{$1}'),
      summary: route.summary,
      request: {
        ...(route.params ? { params: route.params } : {}),
        ...(route.query ? { query: route.query } : {}),
        ...(route.body ? { body: { content: { 'application/json': { schema: route.body } } } } : {}),
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
  });
}
