/**
 * `npm run bench:list`: the list of jobs in a workshop of many years. 100,000 jobs (400 of them open), 30,000 customers and a text for each
 * job are written beside the demo's by SQL, as copies of the demo's cards under other names; then requests are timed from outside, and the
 * Shelves painted in real Chromium. A table, and bench/results/list.json. The web app must be built.
 */
import { writeFileSync } from 'node:fs';
import os from 'node:os';
import { chromium } from '@playwright/test';
import pg from 'pg';
import { demoServer } from '../../scripts/lib/demoServer.mjs';
import { ensureChromium } from '../../scripts/lib/install.mjs';
import { signIn } from '../../scripts/lib/signIn.mjs';
import { inRoot } from '../../scripts/lib/paths.mjs';
import { runMain } from '../../scripts/lib/say.mjs';

const jobs = Number(process.argv[2] ?? 100_000);
const open = 400;
const turns = 60;
const paints = 9;
const quantile = (values, share) => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))];

const fill = [
  `CREATE TEMP TABLE demo AS SELECT row_number() OVER (ORDER BY c.number) - 1 AS n, c.card, c.state, j.pack_hash, c.family, c.layout, c.code, c.symptoms
     FROM job_cards c JOIN jobs j ON j.id = c.job_id`,
  `INSERT INTO customers (id, name, contact)
     SELECT gen_random_uuid(), (ARRAY['Petronel','Casimir','Orla','Gudrun','Tavish','Ysolde','Bram','Liesbet'])[1 + n % 8] || ' '
       || (ARRAY['Ashby','Thorne','Finch','Marlow','Quill','Sedge','Hartnoll','Vane','Wexley','Ormond'])[1 + n / 8 % 10] || '-' || to_hex(n), '01632 ' || n
     FROM generate_series(1, 30000) AS n`,
  `CREATE TEMP TABLE buyers AS SELECT row_number() OVER () - 1 AS n, id FROM customers WHERE name IS NOT NULL`,
  `CREATE TEMP TABLE made AS
     SELECT i, gen_random_uuid() AS job, gen_random_uuid() AS set, gen_random_uuid() AS entry,
            now() - make_interval(mins => ($1 - i) * 40) AS opened, d.*, b.id AS customer,
            i > $1 - $2 AS is_open
     FROM generate_series(1, $1) AS i
     JOIN demo d ON d.n = (i::bigint * 7919) % (SELECT count(*) FROM demo) JOIN buyers b ON b.n = (i::bigint * 104729) % (SELECT count(*) FROM buyers)`,
  `INSERT INTO sets (id, maker, model, serial) SELECT set, 'Quorvane', 'QK-' || i % 997, 'S' || i FROM made`,
  `INSERT INTO jobs (id, customer_id, set_id, pack_hash, opened_at, last_seq) SELECT job, customer, set, pack_hash, opened, 1 FROM made ORDER BY i`,
  `INSERT INTO ledger_entries (job_id, seq, id, at, recorded_at, by, based_on, kind, v, body)
     SELECT job, 1, entry, opened, opened, (SELECT id FROM people LIMIT 1), 0, 'note.added', 1, '{"kind":"note.added","v":1}' FROM made`,
  `INSERT INTO entry_texts (entry_id, field, content)
     SELECT entry, 'text', 'left by the harbour, box ' || i || (CASE WHEN i % 5000 = 0 THEN ' with a gherkin label' ELSE '' END) FROM made`,
  `INSERT INTO job_cards (job_id, state, card, updated_at, number, opened_at, shelf, family, layout, code, symptoms, waiting, search)
     SELECT m.job, CASE WHEN is_open THEN 'on-the-bench' ELSE 'closed' END,
            m.card || jsonb_build_object('jobId', m.job, 'number', j.number, 'title', 'Quorvane QK-' || m.i % 997, 'serial', 'S' || m.i,
              'state', CASE WHEN is_open THEN 'on-the-bench' ELSE 'closed' END, 'shelf', CASE WHEN is_open THEN 'C ' || m.i % 40 END,
              'openedAt', to_char(m.opened AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')),
            now(), j.number, m.opened, CASE WHEN is_open THEN 'C ' || m.i % 40 ELSE '' END, m.family, m.layout, m.code, m.symptoms, false,
            lower(concat_ws(' ', j.number, 'Quorvane QK-' || m.i % 997, 'S' || m.i, m.family))
     FROM made m JOIN jobs j ON j.id = m.job`,
  'VACUUM ANALYZE',
];

async function main() {
  const server = await demoServer();
  const { small: executablePath } = await ensureChromium();
  const browser = await chromium.launch({ executablePath, args: ['--no-sandbox'] });
  const rows = [];
  const add = (measure, values, unit, target) =>
    rows.push({
      measure,
      n: values.length,
      median: Number(quantile(values, 0.5).toFixed(1)),
      p95: Number(quantile(values, 0.95).toFixed(1)),
      unit,
      target,
    });
  try {
    const client = new pg.Client({ connectionString: server.ownerUrl });
    await client.connect();
    for (const sql of fill) await client.query(sql, sql.includes('$1') ? [jobs, open].slice(0, sql.includes('$2') ? 2 : 1) : []);
    const { rows: some } = await client.query("SELECT number, card->>'serial' AS serial FROM job_cards ORDER BY random() LIMIT 200");
    await client.end();
    const { cookie, cookies } = await signIn(server.address);
    const get = async (path) => {
      const began = performance.now();
      const reply = await fetch(`${server.address}${path}`, { headers: { cookie } });
      const body = await reply.text();
      if (!reply.ok) throw new Error(`${path}: ${reply.status} ${body}`);
      return { ms: performance.now() - began, body: JSON.parse(body) };
    };
    const timed = async (measure, pathOf, least) => {
      await get(pathOf(0));
      const times = [];
      for (let turn = 0; turn < turns; turn += 1) {
        const { ms, body } = await get(pathOf(turn));
        if (body.jobs.length < least) throw new Error(`${measure}: ${pathOf(turn)} found ${body.jobs.length}`);
        times.push(ms);
      }
      add(measure, times, 'ms', 100);
    };
    const serial = (turn) => some[turn % some.length].serial;
    await timed('open sets by shelf, first 200', () => '/api/jobs?state=open&order=shelf&limit=200', 200);
    await timed('closed, newest 50', () => '/api/jobs?state=closed&order=newest&limit=50', 50);
    await timed('closed, 50 from the middle on', (turn) => `/api/jobs?state=closed&order=newest&limit=50&after=${jobs / 2 + turn}`, 50);
    await timed('search: a job number', (turn) => `/api/jobs?find=${some[turn].number}`, 1);
    await timed('search: a serial number', (turn) => `/api/jobs?order=newest&find=${serial(turn)}`, 1);
    await timed('search: a family name', (turn) => `/api/jobs?order=newest&find=${['ashby', 'thorne', 'quill'][turn % 3]}`, 100);
    await timed('search: a full name', (turn) => `/api/jobs?order=newest&find=petronel ashby-${(80 * (turn + 1)).toString(16)}`, 1);
    await timed('search: a word every set has', () => '/api/jobs?order=newest&find=quorvane', 100);
    await timed('search: a word of a note', () => '/api/jobs?order=newest&find=gherkin label', 10);
    await timed('search: two letters', () => '/api/jobs?order=newest&find=qk', 100);
    await timed('similar closed jobs', () => '/api/jobs/similar?family=quorvane.qk3&layout=led-tcon&symptoms=sound-dark', 1);
    const shelves = [];
    const first = [];
    const nodes = [];
    for (let turn = 0; turn < paints; turn += 1) {
      const context = await browser.newContext({
        viewport: { width: 1280, height: 800 },
        serviceWorkers: 'block',
        storageState: { cookies, origins: [] },
      });
      const page = await context.newPage();
      const began = performance.now();
      await page.goto(`${server.address}/`);
      await page.locator('[data-shelf="open"] [data-job]').first().waitFor();
      shelves.push(performance.now() - began);
      first.push(await page.evaluate("performance.getEntriesByName('first-contentful-paint')[0].startTime"));
      nodes.push(await page.evaluate('document.querySelectorAll("*").length'));
      await context.close();
    }
    add('Shelves: first paint, cold', first, 'ms', 1000);
    add('Shelves: cold start to the first set on the screen', shelves, 'ms', 1000);
    add('Shelves: nodes', nodes, '', 3000);
  } finally {
    await browser.close();
    await server.stop();
  }
  const report = { measured: new Date().toISOString().slice(0, 10), cores: os.cpus().length, jobs, open, rows };
  writeFileSync(inRoot('bench/results/list.json'), `${JSON.stringify(report, null, 2)}\n`);
  console.table(rows);
}
await runMain(main);
