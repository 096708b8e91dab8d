import { NextResponse } from 'next/server';
import { openApiDocument } from '@/server/interface/openapi';
import { door } from '@/server/door/route';

export const GET = door({ who: 'anyone' }, () => Promise.resolve(NextResponse.json(openApiDocument())));
