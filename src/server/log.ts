import pino from 'pino';

export const log = pino({ level: process.env.JEITO_LOG ?? 'info', base: undefined });
