import { endpoint, fault } from '../../server/http';

export const ALL = endpoint(({ url }) => {
  throw fault(
    404,
    'unknown-address',
    `There is no endpoint ${url.pathname}. See docs/developing.md for those there are.`,
  );
});
