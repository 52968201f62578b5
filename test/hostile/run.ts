/** `npm run hostile`: at least 20,000 changed and hostile requests over all doors of a server of its own. */
import { startApplication } from '../browser/application';
import { attack, SLOW_MS } from './attack';

const REQUESTS = Number(process.env.HOSTILE_REQUESTS ?? 20_000);
const SEED = Number(process.env.HOSTILE_SEED ?? 20_261_125);
/**
 * The health address may answer so much later than it does with nothing else asked, milliseconds. Measured against
 * that, because a machine whose memory is taken away between two requests answers late by itself.
 */
const HEALTH_MS = 100;

const application = await startApplication();
const start = performance.now();
const report = await attack(application.url, REQUESTS, SEED);
application.stop();
const { broken, slow, ...figures } = report;
console.log(JSON.stringify({ ...figures, seconds: Math.round((performance.now() - start) / 1000) }, null, 2));
for (const line of [...broken.slice(0, 20), ...slow.slice(0, 20)]) console.log(line);
const laterMs = report.health.mostMs - report.idleHealth.mostMs;
const isSound = broken.length === 0 && slow.length === 0 && laterMs <= HEALTH_MS;
console.log(
  `${broken.length} broken, ${slow.length} over ${SLOW_MS} ms, health ${laterMs} ms later than idle`,
);
process.exit(isSound ? 0 : 1);
