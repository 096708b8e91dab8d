import { NextResponse } from 'next/server';
import { hangar } from '@/server/queries/hangar';
import { caller, nothingHere } from '../answer';

export async function GET(request: Request) {
  if (!(await caller(request))) return nothingHere();
  return NextResponse.json(
    (await hangar()).flatMap((t) =>
      t.airframes.map((a) => ({
        registration: a.registration,
        typeCode: t.code,
        version: a.version,
        airframe: a.airframe,
      })),
    ),
  );
}
