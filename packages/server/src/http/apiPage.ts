/** The API to read and try in a browser, from the OpenAPI document. Its files ship with the server; nothing comes from elsewhere. */
import { createRequire } from 'node:module';
import path from 'node:path';
import express, { type Router } from 'express';

/** Where it is; its files lie under it. */
export const apiPagePath = '/api/docs';

const page = `<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>Veglia API</title>
    <link rel="icon" href="/lamp.svg" />
    <link rel="stylesheet" href="${apiPagePath}/swagger-ui.css" />
  </head>
  <body>
    <div id="api"></div>
    <script src="${apiPagePath}/swagger-ui-bundle.js"></script>
    <script src="${apiPagePath}/start.js"></script>
  </body>
</html>
`;
const root = path.dirname(createRequire(import.meta.url).resolve('swagger-ui-dist/package.json'));
const files = ['swagger-ui.css', 'swagger-ui-bundle.js'];
/** `validatorUrl` null: the document is sent to nobody. */
const start = `SwaggerUIBundle({ url: '/api/openapi.json', dom_id: '#api', deepLinking: true, validatorUrl: null, defaultModelsExpandDepth: 0 });
`;

/** The page and its files, to be mounted at `apiPagePath`. */
export function apiPage(): Router {
  const router = express.Router();
  router.get('/', (_request, response) => {
    response.type('html').send(page);
  });
  router.get('/start.js', (_request, response) => {
    response.type('js').send(start);
  });
  for (const file of files)
    router.get(`/${file}`, (_request, response) => {
      response.sendFile(file, { root, maxAge: '1h' });
    });
  return router;
}
