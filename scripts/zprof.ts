import { traceSpeed } from './lib/trace-speed';
console.log(traceSpeed());
console.log(traceSpeed());
