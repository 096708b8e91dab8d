import { NextResponse } from 'next/server';
import { airframeVersions } from '@/server/queries/hangar';
import { caller, nothingHere } from '../../answer';

export async function GET(request: Request, { params }: { params: Promise<{ registration: string }> }) {
  const { registration } = await params;
  const newest = (await caller(request)) ? (await airframeVersions(registration))[0] : undefined;
  return newest
    ? NextResponse.json({
        registration,
        typeCode: newest.airframe.typeCode,
        version: newest.version,
        airframe: newest.airframe,
      })
    : nothingHere();
}
