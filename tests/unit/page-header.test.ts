import { expect, it } from 'vitest';
import { pageOfOurs } from '@/server/floor/auth/page-header';

it.each([
  ['/board', '/board'],
  ['/people?name=Sá&page=2', '/people?name=Sá&page=2'],
  ['/checkouts/c-1/brief#wind', '/checkouts/c-1/brief#wind'],
  [undefined, null],
  ['', null],
  ['board', null],
  ['//elsewhere.example/board', null],
  ['/\\elsewhere.example', null],
  ['/a\\b', null],
  ['https://elsewhere.example', null],
  ['javascript:alert(1)', null],
  ['/sign-in?back=/board', null],
  ['/a b', null],
  ['/\n/elsewhere.example', null],
  [`/${'x'.repeat(600)}`, null],
])('%j is come back to as %j', (asked, back) => expect(pageOfOurs(asked)).toBe(back));
