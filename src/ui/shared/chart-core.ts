/** What every chart is built on; apart, so that it can start in a task of its own. */
export { format, init, use } from 'echarts/core';
