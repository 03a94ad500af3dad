// Starts a tool by name on a machine that may hold nothing but Node: installs the npm packages first, then runs the
// TypeScript tool in this very process, so that Ctrl-C reaches it and nothing stands in between.
import { ensurePackages } from './packages.mjs';

const [name = '', ...args] = process.argv.slice(2);
if (!/^(advise|bench|bridge|build|demo|dev|diagnose|pictures|read-trace|test)$/.test(name)) {
  process.stderr.write(
    'Usage: node tools/run.mjs advise|bench|bridge|build|demo|dev|diagnose|pictures|read-trace|test\n',
  );
  process.exit(2);
}
try {
  ensurePackages();
  const { register } = await import('tsx/esm/api');
  register();
  const tool = await import(`./${name}.ts`);
  process.exitCode = (await tool.main(args)) ?? 0;
} catch (error) {
  const known = error instanceof Error && error.name === 'SetUpError';
  process.stderr.write(`${known ? error.message : error instanceof Error ? error.stack : String(error)}\n`);
  process.exitCode = 1;
}
