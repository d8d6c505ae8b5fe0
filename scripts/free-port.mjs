// Prints the first free port from the given one on.
import { createServer } from 'node:net';

const first = Number(process.argv[2]);
if (!Number.isInteger(first) || first < 1 || first > 65535) {
  process.stderr.write(`${process.argv[2]} is not a port number\n`);
  process.exit(2);
}
const isFree = (port) =>
  new Promise((answer) => {
    const server = createServer();
    server.once('error', () => answer(false));
    server.listen(port, () => server.close(() => answer(true)));
  });
for (let port = first; port <= 65535; port++) {
  if (await isFree(port)) {
    process.stdout.write(`${port}\n`);
    process.exit(0);
  }
}
process.stderr.write('no port is free\n');
process.exit(1);
