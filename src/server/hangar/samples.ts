/** Sheets to begin with, one a kind: every number on them is a sample and has to be confirmed. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { SampleKind } from '@/domain/draft-forms';
import { formNode } from '@/domain/form';
import { misfit } from '@/domain/form-node';
import { TypeSheet } from '@/domain/sheet';

export const TYPE_NODE = formNode(TypeSheet);

/** A sample sheet as it is shipped; a file that has not the form of one stops the start, by name. */
export function sampleSheet(kind: SampleKind): string {
  const text = readFileSync(path.join(process.cwd(), 'content', 'samples', `${kind}.json`), 'utf8');
  const wrong = misfit(TYPE_NODE, JSON.parse(text), '', true);
  if (wrong !== null) throw new Error(`content samples ${kind}: ${wrong}`);
  return text;
}
