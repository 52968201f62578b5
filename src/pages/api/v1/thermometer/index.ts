import { benchThermometer } from '../../../../server/devices/thermometer';
import { answerJson, endpoint, onlyMethods } from '../../../../server/http';

export const GET = endpoint(() => answerJson(benchThermometer().read()));

export const ALL = onlyMethods('GET');
