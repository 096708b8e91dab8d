import type { SourceKind } from '@/domain/words';

/** Who says a number, and where. */
export interface Reference {
  source: SourceKind;
  ref: string;
}
