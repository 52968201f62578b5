/** How much of a statistic is looked at: a sample in `npm test`, all of it by `npm run deep`. */
export const many = (sample: number, deep: number): number => (process.env.PROPORTIA_DEEP ? deep : sample);
