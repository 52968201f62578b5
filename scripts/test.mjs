/**
 * `npm test`: installs what is missing, then format, lint, types and a build side by side, unit and server tests, the
 * browser tests and the benchmark's short form. The last lines name what failed and tell how many tests passed and
 * failed; any fault makes it exit with 1.
 */
import { Buffer } from 'node:buffer';
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { ensureChromium } from './chromium.mjs';
import { ensureInstalled } from './install.mjs';

const REPORTS = { unit: 'test-results/unit.json', browser: 'test-results/browser.json' };

ensureInstalled();

const failedStages = [];

/** Runs a stage; what it says comes at once, or in one piece where others run beside it. */
function stage(name, command, args, { env = {}, isBeside = false } = {}) {
  if (!isBeside) console.log(`\n== ${name}`);
  const started = Date.now();
  const child = spawn(command, args, {
    stdio: isBeside ? ['ignore', 'pipe', 'pipe'] : 'inherit',
    env: { ...process.env, ...env },
  });
  const said = [];
  for (const stream of isBeside ? [child.stdout, child.stderr] : [])
    stream.on('data', (piece) => said.push(piece));
  return new Promise((resolve) => {
    const end = (status) => {
      if (isBeside) process.stdout.write(`\n== ${name}\n${Buffer.concat(said)}`);
      if (status !== 0) {
        failedStages.push(name);
        console.error(`${name}: failed`);
      }
      console.log(`${name}: ${Math.round((Date.now() - started) / 1000)} s`);
      resolve();
    };
    child.on('error', () => end(1));
    child.on('close', end);
  });
}

const beside = (name, command, args, env = {}) => stage(name, command, args, { env, isBeside: true });
const BUILD = "import('./scripts/build.mjs').then(({ ensureBuilt }) => ensureBuilt())";

rmSync('test-results', { recursive: true, force: true });
// Each of these keeps one core busy. Looking at types and building both write down the types of pages: one after the other.
const types = beside('Types', 'npx', ['astro', 'check', '--minimumSeverity', 'warning'], {
  ASTRO_TELEMETRY_DISABLED: '1',
});
await Promise.all([
  types
    .then(() => beside('Build', process.execPath, ['-e', BUILD]))
    .then(() => beside('Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.'])),
  beside('Lint', 'npx', ['eslint', '--max-warnings', '0', '.'])
    .then(() => beside('Styles', 'npx', ['stylelint', 'src/**/*.css']))
    .then(() => beside('Unused', 'npx', ['knip'])),
]);
await stage('Unit and server tests', 'npx', ['mocha', '--reporter', './scripts/mocha-reporter.cjs'], {
  env: { REPORT_FILE: REPORTS.unit },
});
if (ensureChromium()) {
  await stage('Browser tests', 'npx', ['playwright', 'test'], {
    env: { PLAYWRIGHT_JSON_OUTPUT_NAME: REPORTS.browser },
  });
  await stage('Benchmark, short form', process.execPath, ['scripts/bench.mjs', '--short']);
} else failedStages.push('Chromium');

/** The tests of one suite of Playwright's report that failed, those of the suites within it too. */
const unexpected = ({ specs = [], suites = [] }) => [
  ...specs.filter(({ ok }) => !ok).map(({ file, title }) => `${file}: ${title}`),
  ...suites.flatMap(unexpected),
];

/** How many tests passed and failed, and each that failed by its name. */
function counts() {
  let passed = 0;
  let failed = 0;
  const names = [];
  if (existsSync(REPORTS.unit)) {
    const { stats, failed: tests } = JSON.parse(readFileSync(REPORTS.unit, 'utf8'));
    names.push(...tests.map(({ test, error }) => `${test}: ${error}`));
    passed += stats.passes;
    failed += stats.failures;
  }
  if (existsSync(REPORTS.browser)) {
    const { stats, suites } = JSON.parse(readFileSync(REPORTS.browser, 'utf8'));
    names.push(...suites.flatMap(unexpected));
    passed += stats.expected + stats.flaky;
    failed += stats.unexpected;
  }
  return { passed, failed, names };
}

const { passed, failed, names } = counts();
if (failedStages.length > 0) console.error(`\nFailed: ${failedStages.join(', ')}`);
for (const name of names) console.error(`  ✗ ${name}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failedStages.length > 0 || failed > 0 || passed === 0 ? 1 : 0);
