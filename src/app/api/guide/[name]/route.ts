import { door } from '@/server/door/route';
import { guidePicture } from '@/server/running/queries/guide';

/** A picture of the guide. */
export const GET = door<'signed-in', { name: string }>({ who: 'signed-in' }, ({ params }) => {
  const picture = guidePicture(params.name);
  return Promise.resolve(
    picture &&
      new Response(new Uint8Array(picture), {
        headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=3600' },
      }),
  );
});
