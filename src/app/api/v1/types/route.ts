import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { hangar } from '@/server/hangar/queries/hangar';

export const GET = door({ who: 'caller', scope: 'hangar' }, async () =>
  NextResponse.json(
    (await hangar()).map((t) => ({
      code: t.code,
      name: t.sheet.name,
      version: t.version,
      airframes: t.airframes.map((a) => a.registration),
    })),
  ),
);
