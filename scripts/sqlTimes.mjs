// Loaded before the server that is measured: adds up what its statements take, and tells it to who started it.
import { createRequire } from 'node:module';

const Database = createRequire(import.meta.url)('better-sqlite3');
const told = { ms: 0, statements: 0 };

const { prepare } = Database.prototype;
Database.prototype.prepare = function timed(sql) {
  const statement = prepare.call(this, sql);
  for (const way of ['all', 'get', 'run']) {
    const run = statement[way];
    statement[way] = (...bound) => {
      const from = performance.now();
      try {
        return run.apply(statement, bound);
      } finally {
        told.ms += performance.now() - from;
        told.statements += 1;
      }
    };
  }
  return statement;
};

process.on('message', () => {
  process.send?.(told);
  Object.assign(told, { ms: 0, statements: 0 });
});
// Only the server that was started here is spoken to, and it ends with whoever started it.
process.channel?.unref();
