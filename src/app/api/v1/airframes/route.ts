import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { hangar } from '@/server/hangar/queries/hangar';

export const GET = door({ who: 'caller', scope: 'hangar' }, async () =>
  NextResponse.json(
    (await hangar()).flatMap((t) =>
      t.airframes.map((a) => ({
        registration: a.registration,
        typeCode: t.code,
        version: a.version,
        airframe: a.airframe,
      })),
    ),
  ),
);
