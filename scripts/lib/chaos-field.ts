/**
 * The field's side of the chaos run, in a process of its own that can be killed: the real command, the real database, a
 * bare HTTP door.
 * `x-hold: before|after` makes it wait before or after the commit, so that a kill lands in the middle.
 */
import { createServer } from 'node:http';
import { userById } from '@/server/floor/auth/session-user';
import { recordEvents } from '@/server/fly/commands/capture';
import { rows } from './raw';

const user = async () => {
  const helena = await userById('user-helena');
  if (!helena) throw new Error('Helena is not there');
  return helena;
};
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

createServer((request, response) => {
  const chunks: Buffer[] = [];
  request.on('data', (c: Buffer) => chunks.push(c));
  request.on(
    'end',
    () =>
      void (async () => {
        const url = new URL(request.url ?? '/', 'http://field');
        const say = (body: unknown) => {
          response.setHeader('content-type', 'application/json');
          response.end(JSON.stringify(body));
        };
        if (url.pathname === '/api/sync') {
          const { events, sentAt } = JSON.parse(Buffer.concat(chunks).toString()) as {
            events: unknown[];
            sentAt: string;
          };
          if (request.headers['x-hold'] === 'before') await wait(10_000);
          // The run has a clock of its own: the true time comes with the request.
          const answer = await recordEvents(await user(), events, {
            sentAtMs: Date.parse(sentAt),
            receivedAtMs: Number(request.headers['x-true-time']),
          });
          if (request.headers['x-hold'] === 'after') await wait(10_000);
          return say(answer);
        }
        const sortie = url.searchParams.get('sortie') ?? '';
        say({
          events: await rows(
            'SELECT event_id AS eventId, device_id AS deviceId, device_seq AS deviceSeq, sortie_id AS sortieId, subject_id AS subjectId, author, type, v, device_time AS deviceTime, payload, skew_ms AS skewMs FROM capture_events WHERE sortie_id = :sortie',
            { sortie },
          ),
          landings: await rows('SELECT id FROM landings WHERE sortie_id = :sortie', { sortie }),
        });
      })().catch((error: unknown) => {
        response.statusCode = 500;
        response.end(String(error));
      }),
  );
}).listen(Number(process.env.PORT), () => console.log('ready'));
