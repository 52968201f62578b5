/** Mocha's dots, and the counts, the slowest tests and what failed in the file that REPORT_FILE names. */
const { mkdirSync, writeFileSync } = require('node:fs');
const { dirname } = require('node:path');
const { reporters } = require('mocha');

const SLOW_MS = 1000;

module.exports = class extends reporters.Dot {
  constructor(runner, options) {
    super(runner, options);
    const slow = [];
    const failed = [];
    runner.on('fail', (test, error) => failed.push({ test: test.fullTitle(), error: error.message }));
    runner.on('test end', (test) => {
      if (test.duration > SLOW_MS) slow.push([Math.round(test.duration), test.fullTitle()]);
    });
    runner.on('end', () => {
      const file = process.env.REPORT_FILE;
      if (!file) return;
      mkdirSync(dirname(file), { recursive: true });
      writeFileSync(
        file,
        JSON.stringify({ stats: runner.stats, failed, slow: slow.sort(([a], [b]) => b - a) }, null, 1),
      );
    });
  }
};
