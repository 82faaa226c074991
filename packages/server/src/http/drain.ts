/** The end of a server: no new work, and what is under way comes to its end. */
import type { Server } from 'node:http';

/** Resolves once every request is answered, or `graceMs` after which what is still open is cut off. */
export async function drain(server: Server, graceMs: number): Promise<void> {
  const closed = new Promise<void>((resolve) => server.close(() => resolve()));
  server.closeIdleConnections();
  // Connections that are kept alive become idle one by one, after their request.
  const idling = setInterval(() => server.closeIdleConnections(), 50);
  const late = setTimeout(() => server.closeAllConnections(), graceMs);
  await closed;
  clearInterval(idling);
  clearTimeout(late);
}
