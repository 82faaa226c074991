/** What a schema allows, for the field that fills it: each bound is written once, where data is checked. */
import { z } from 'zod';
import { parseBetween } from './numbers.ts';
