import { benchScale } from '../../../../server/devices/scale';
import { endpoint, onlyMethods } from '../../../../server/http';
import { eventStream } from '../../../../server/stream';

export const GET = endpoint(({ request }) => eventStream(request, (send) => benchScale().listen(send)));

export const ALL = onlyMethods('GET');
