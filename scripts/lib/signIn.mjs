/** Signing in on a server of this machine, for tests, measurements and pictures. */

/** Owner of a shop that such a program opens. */
export const firstOwner = { name: 'Technician', password: 'copper lantern over nine harbours' };

/**
 * The code that a server's console shows at its first start; '' where it shows none. Its standard output must be piped.
 *
 * @param {import('node:child_process').ChildProcess} child
 * @returns {() => string}
 */
export function codeShownBy(child) {
  let code = '';
  child.stdout?.on('data', (said) => {
    code ||= /: ([A-Z0-9-]{24})$/m.exec(String(said))?.[1] ?? '';
  });
  return () => code;
}

/**
 * As the first owner by that code, or, without one, as somebody of the demo.
 *
 * @param {string} address
 * @param {string} [code]
 * @returns {Promise<{ by: string, cookie: string, cookies: { name: string, value: string, domain: string, path: string, expires: number, httpOnly: boolean, secure: boolean, sameSite: 'Strict' }[] }>}
 */
export async function signIn(address, code) {
  const reply = await fetch(`${address}/api/session/${code ? 'join' : 'demo'}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-veglia': '1' },
    body: JSON.stringify(code ? { code, ...firstOwner } : {}),
  });
  const said = await reply.json();
  if (!reply.ok) throw new Error(`can't sign in: ${reply.status} ${JSON.stringify(said)}`);
  const pairs = reply.headers.getSetCookie().map((one) => one.split(';', 1)[0] ?? '');
  return {
    by: said.signedIn.id,
    cookie: pairs.join('; '),
    cookies: pairs.map((pair) => ({
      name: pair.slice(0, pair.indexOf('=')),
      value: pair.slice(pair.indexOf('=') + 1),
      domain: '127.0.0.1',
      path: '/',
      expires: -1,
      httpOnly: true,
      secure: false,
      sameSite: 'Strict',
    })),
  };
}
