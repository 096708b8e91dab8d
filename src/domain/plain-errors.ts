/** What a schema says where it has no words of its own: what to do, in plain English. */
import { z } from 'zod';

const KINDS: Readonly<Record<string, string>> = {
  number: 'Enter a number.',
  int: 'Enter a whole number.',
  string: 'Fill in this field.',
  boolean: 'Choose yes or no.',
  array: 'A list belongs here.',
  object: 'Fill in these fields.',
};
z.config({
  customError: (issue) => {
    if (issue.code === 'invalid_type') return KINDS[issue.expected];
    if (issue.code === 'invalid_value') return 'Choose one of the list.';
    if (issue.code === 'too_small')
      return issue.origin === 'string'
        ? 'Fill in this field.'
        : issue.origin === 'array'
          ? 'At least one belongs here.'
          : `At least ${String(issue.minimum)}.`;
    if (issue.code === 'too_big')
      return issue.origin === 'string'
        ? `At most ${String(issue.maximum)} characters.`
        : `At most ${String(issue.maximum)}.`;
    return undefined;
  },
});
