import { NextResponse } from 'next/server';
import { openApiDocument } from '@/server/api/openapi';

export const GET = () => NextResponse.json(openApiDocument());
