/**
 * `npm test`: installs what is missing, then format, lint, types, unit and server tests, a build and the
 * browser tests. The last line tells how many tests passed and failed; any fault makes it exit with 1.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureInstalled } from './install.mjs';

const REPORTS = { unit: 'test-results/unit.json', browser: 'test-results/browser.json' };

ensureInstalled();

let failedStages = 0;
function stage(name, command, args, env = {}) {
  console.log(`\n== ${name}`);
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  if (status !== 0) {
    failedStages++;
    console.error(`${name}: failed`);
  }
}

rmSync('test-results', { recursive: true, force: true });
stage('Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
stage('Lint', 'npx', ['eslint', '--max-warnings', '0', '.']);
stage('Unused', 'npx', ['knip']);
stage('Types', 'npx', ['astro', 'check', '--minimumSeverity', 'warning'], { ASTRO_TELEMETRY_DISABLED: '1' });
stage('Unit and server tests', 'npx', ['mocha', '--reporter', './scripts/mocha-reporter.cjs'], {
  REPORT_FILE: REPORTS.unit,
});
if (ensureChromium()) {
  await ensureBuilt();
  stage('Browser tests', 'npx', ['playwright', 'test'], { PLAYWRIGHT_JSON_OUTPUT_NAME: REPORTS.browser });
  stage('Benchmark, short form', process.execPath, ['scripts/bench.mjs', '--short']);
} else failedStages++;

function counts() {
  let passed = 0;
  let failed = 0;
  if (existsSync(REPORTS.unit)) {
    const { stats } = JSON.parse(readFileSync(REPORTS.unit, 'utf8'));
    passed += stats.passes;
    failed += stats.failures;
  }
  if (existsSync(REPORTS.browser)) {
    const { stats } = JSON.parse(readFileSync(REPORTS.browser, 'utf8'));
    passed += stats.expected + stats.flaky;
    failed += stats.unexpected;
  }
  return { passed, failed };
}

const { passed, failed } = counts();
if (failedStages > 0) console.error(`\n${failedStages} stage(s) failed; see above.`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failedStages > 0 || failed > 0 || passed === 0 ? 1 : 0);
