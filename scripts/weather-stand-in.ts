/** `npm run weather`: a weather service of one's own, to try the addresses of Settings with; `-- --port 4010`. */
import './lib/help.mjs';
import { parseArgs } from 'node:util';
import { STAND_IN_PATHS, weatherStandIn } from './lib/weather-stand-in';

const { values } = parseArgs({ options: { port: { type: 'string', default: '4010' } } });
const { url } = await weatherStandIn(Number(values.port));
console.log(`Start Jeito with JEITO_WEATHER_LOCAL=1 and enter one of these in Settings, School:`);
for (const path of STAND_IN_PATHS) console.log(`  ${url}/${path}`);
