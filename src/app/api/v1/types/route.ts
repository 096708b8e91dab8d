import { NextResponse } from 'next/server';
import { hangar } from '@/server/queries/hangar';
import { caller, nothingHere } from '../answer';

export async function GET(request: Request) {
  if (!(await caller(request))) return nothingHere();
  return NextResponse.json(
    (await hangar()).map((t) => ({
      code: t.code,
      name: t.sheet.name,
      version: t.version,
      airframes: t.airframes.map((a) => a.registration),
    })),
  );
}
