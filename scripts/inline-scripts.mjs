/**
 * After a build: the hashes of the scripts that stand inside the pages made at the build, for the policy of what may run
 * (.next/inline-scripts.json). A page that is made with each answer names its scripts by a nonce and is not read here.
 */
import './lib/help.mjs';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';

const hash = (text) => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;
const inlineOf = (file) =>
  [...readFileSync(file, 'utf8').matchAll(/<script(?![^>]*\ssrc=)[^>]*>([\s\S]*?)<\/script>/g)].map(([, text]) => text);

const folder = '.next/server/app';
const KEPT = ['fly.html', 'offline.html'];
const shell = [...new Set(KEPT.flatMap((f) => inlineOf(`${folder}/${f}`)))];
const others = readdirSync(folder).filter((f) => f.endsWith('.html') && !KEPT.includes(f));
const all = new Set(others.flatMap((f) => inlineOf(`${folder}/${f}`)));
if (existsSync('.next/server/pages'))
  for (const f of readdirSync('.next/server/pages').filter((n) => n.endsWith('.html')))
    for (const text of inlineOf(`.next/server/pages/${f}`)) all.add(text);
const theme = shell.find((text) => text.includes('data-bs-theme') || text.includes('bsTheme'));
if (!theme) throw new Error('the theme script is not in the shell: look at .next/server/app/fly.html');
writeFileSync(
  '.next/inline-scripts.json',
  JSON.stringify({
    theme: hash(theme),
    shell: shell.filter((text) => text !== theme).map(hash),
    fallback: [...all].filter((text) => text !== theme).map(hash),
  }),
);
console.log(`inline scripts: ${shell.length} in the shell, ${all.size} in other fixed pages`);
