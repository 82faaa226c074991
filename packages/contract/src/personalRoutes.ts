/** What is held about a person: handed over, or erased. */
import { z } from 'zod';
import { jobParams } from './api.ts';
import { accountsSchema } from './accounts.ts';
import { erasedSchema, eraseCustomerSchema } from './personal.ts';
import type { RouteDescription } from './route.ts';

export const personalRoutes = {
  customerData: {
    method: 'get',
    path: '/api/customers/:id/data.zip',
    tag: 'shop',
    summary: 'Everything held about a customer: one JSON file and the photos',
    params: jobParams,
    status: 200,
    reply: z.string(),
    media: 'application/zip',
  },
  eraseCustomer: {
    method: 'post',
    path: '/api/customers/:id/erase',
    tag: 'shop',
    summary: 'Erase a customer from all their jobs; the facts of the repairs stay',
    params: jobParams,
    body: eraseCustomerSchema,
    status: 200,
    reply: erasedSchema,
  },
  accountData: {
    method: 'get',
    path: '/api/accounts/:id/data.json',
    tag: 'accounts',
    summary: 'Everything held about somebody who works here, or did',
    params: jobParams,
    status: 200,
    reply: z.looseObject({ format: z.literal('veglia-person') }),
  },
  eraseAccount: {
    method: 'post',
    path: '/api/accounts/:id/erase',
    tag: 'accounts',
    summary: 'Erase the name of somebody who has left; what they wrote stays',
    params: jobParams,
    body: z.strictObject({}),
    status: 200,
    reply: accountsSchema,
  },
} as const satisfies Readonly<Record<string, RouteDescription>>;
