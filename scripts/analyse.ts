/**
 * `npm run -s analyse -- FILE --context CONTEXT.json`: one JSON document on stdout, nothing else; what cannot be read
 * goes to stderr with exit 1.
 * `--schema` prints the two schemas. A gzipped file is unpacked by what it holds, not by its name.
 */
import './lib/help.mjs';
import { readFileSync, statSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { gunzipSync } from 'node:zlib';
import { z } from 'zod';
import { MAX_TEXT, analyseTrace, fromZip, isGzip, isZip, readTrace, textOfBytes, unreadableWords } from '@/core/trace';
import { TraceAnalysis, TraceContext } from '@/domain/trace';

const fail = (message: string): never => {
  console.error(message);
  process.exit(1);
};

const { values, positionals } = parseArgs({
  options: { context: { type: 'string' }, schema: { type: 'boolean' } },
  allowPositionals: true,
});
if (values.schema) {
  console.log(
    JSON.stringify({ context: z.toJSONSchema(TraceContext), analysis: z.toJSONSchema(TraceAnalysis) }, null, 2),
  );
  process.exit(0);
}
const [file] = positionals;
if (!file || !values.context) fail('Give a file and a context: npm run -s analyse -- FILE --context CONTEXT.json');

function textOf(name: string): string {
  try {
    if (statSync(name).size > MAX_TEXT) fail(`The file has more than ${MAX_TEXT / 1e6} MB: cut it to the flight.`);
    const bytes = readFileSync(name);
    const opened = isZip(bytes) ? fromZip(bytes, MAX_TEXT) : bytes;
    if (typeof opened === 'string') return fail(`${name} cannot be read: ${opened}`);
    return textOfBytes(isGzip(opened) ? gunzipSync(opened, { maxOutputLength: MAX_TEXT }) : opened);
  } catch (error) {
    return fail(`${name} cannot be read: ${error instanceof Error ? error.message : String(error)}`);
  }
}

const parsed = (() => {
  try {
    return TraceContext.safeParse(JSON.parse(textOf(values.context ?? '')));
  } catch {
    return fail('The context is not JSON.');
  }
})();
if (!parsed.success)
  fail(
    `The context does not fit trace-context/1: ${parsed.error.issues.map((i) => `${i.path.join('.')} ${i.message}`).join('; ')}`,
  );
const read = readTrace(textOf(file ?? ''));
if (!read.ok) fail(`${read.code}: ${unreadableWords(read.why)}`);
else if (parsed.success) console.log(JSON.stringify(analyseTrace(read.trace, parsed.data)));
