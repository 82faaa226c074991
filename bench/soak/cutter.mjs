/** A wire that can be cut: passes TCP on to a port of this machine, until it is told not to. */
import { connect, createServer } from 'node:net';

export async function openWire(target) {
  const sockets = new Set();
  let whole = true;
  const server = createServer((socket) => {
    const onward = whole ? connect(target, '127.0.0.1') : undefined;
    for (const one of [socket, onward]) {
      if (!one) continue;
      sockets.add(one);
      one.on('error', () => undefined);
      one.on('close', () => {
        sockets.delete(one);
        socket.destroy();
        onward?.destroy();
      });
    }
    if (!onward) socket.destroy();
    else socket.pipe(onward).pipe(socket);
  });
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    port: server.address().port,
    /** In the middle of whatever is on it. */
    cut() {
      whole = false;
      for (const one of sockets) one.destroy();
    },
    join() {
      whole = true;
    },
    close() {
      for (const one of sockets) one.destroy();
      server.close();
    },
  };
}
