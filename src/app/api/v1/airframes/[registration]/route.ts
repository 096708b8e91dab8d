import { NextResponse } from 'next/server';
import { door } from '@/server/door/route';
import { airframeVersions } from '@/server/hangar/queries/hangar';

export const GET = door<'caller', { registration: string }>(
  { who: 'caller', scope: 'hangar' },
  async ({ params: { registration } }) => {
    const newest = (await airframeVersions(registration))[0];
    return newest
      ? NextResponse.json({
          registration,
          typeCode: newest.airframe.typeCode,
          version: newest.version,
          airframe: newest.airframe,
        })
      : null;
  },
);
