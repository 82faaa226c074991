/**
 * The names this server answers to. Loopback is no protection by itself: any web page in the same browser can send to it, and a page
 * whose name is made to resolve to 127.0.0.1 would read every reply as its own. What tells them apart is the name they ask for.
 */
const loopbackNames = new Set(['localhost', '127.0.0.1', '[::1]']);

/** Names the server answers to. */
export interface Hosts {
  /** Whether a Host header names this server; a port is not looked at, since a forwarded port is no other server. */
  answersTo(host: string | undefined): boolean;
  /** Whether a page of this origin, asking for `host`, is this server's own. No origin: no browser, or no other page. */
  isOwnPage(origin: string | undefined, host: string | undefined): boolean;
}

function hostOf(header: string): URL | undefined {
  try {
    const url = new URL(`http://${header}`);
    // Anything beside name and port ("name/path", "user@name") is no Host header.
    return url.username === '' && url.password === '' && url.pathname === '/' && url.search === '' && url.hash === '' ? url : undefined;
  } catch {
    return undefined;
  }
}

/** `publicUrls`: the addresses people reach this server by beside loopback, such as https://bench.example.org. */
export function hostsOf(publicUrls: readonly string[]): Hosts {
  const names = new Set([...loopbackNames, ...publicUrls.map((url) => new URL(url).hostname)]);
  const origins = new Set(publicUrls.map((url) => new URL(url).origin));
  const answersTo = (host: string | undefined): boolean => {
    const url = host === undefined ? undefined : hostOf(host);
    return url !== undefined && names.has(url.hostname);
  };
  return {
    answersTo,
    isOwnPage(origin, host) {
      if (!answersTo(host)) return false;
      if (origin === undefined || origins.has(origin)) return true;
      try {
        // Another program of this machine serves pages on loopback too, at another port.
        return new URL(origin).host === hostOf(host ?? '')?.host;
      } catch {
        return false;
      }
    },
  };
}
