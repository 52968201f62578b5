/** Mocha's spec output, and the counts in the file that REPORT_FILE names. */
const { mkdirSync, writeFileSync } = require('node:fs');
const { dirname } = require('node:path');
const { reporters } = require('mocha');

module.exports = class extends reporters.Dot {
  constructor(runner, options) {
    super(runner, options);
    runner.on('end', () => {
      const file = process.env.REPORT_FILE;
      if (!file) return;
      mkdirSync(dirname(file), { recursive: true });
      writeFileSync(file, JSON.stringify({ stats: runner.stats }));
    });
  }
};
