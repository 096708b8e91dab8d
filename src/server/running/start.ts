import { accessSync, closeSync, constants, existsSync, openSync, rmSync, statfsSync, writeSync } from 'node:fs';
import sqlite3 from 'sqlite3';
import { refreshMissing } from '../checkout/commands/tallies';
import { renewLandings } from '../fly/commands/capture';
import { nowIso } from '../floor/clock';
import { importContent, shippedContent } from '../rules/content';
import { FolderProblem, dataFolder, ensureDataFolder, holdFolder, inData } from '../floor/data-folder';
import { migrate } from '../floor/migrate';
import { write } from '../floor/write';
import { ledgerKeyId, publishHead, settleKey } from '../ledger/entries';
import { firstKey, readHead, signingProblem } from '../ledger/keys';
import { log } from '../floor/log';
import { cleanLeftovers } from '../traces/files';
import * as ask from '../floor/statements/running';
import { LedgerEntries } from '../ledger/tables';

/** Takes the data folder, migrates, imports shipped content by hash, and brings the signed head up to date. */
export async function prepareServer(): Promise<void> {
  usableFolder();
  holdFolder();
  await wholeDatabase();
  const ran = await migrate();
  await ledgerThere();
  const added = await write((t) => importContent(shippedContent(), 'Jeito', t));
  const renewed = await renewLandings();
  await refreshMissing();
  await settleKey();
  // The key is there from the first start, so that its public half can be kept elsewhere before anything is signed.
  const ofLedger = await ledgerKeyId();
  firstKey(ofLedger);
  const wrong = signingProblem(ofLedger);
  if (wrong) log.warn(wrong.message);
  await publishHead(nowIso());
  cleanLeftovers();
  log.info({ folder: dataFolder(), migrations: ran.length, content: added, renewed }, 'data folder ready');
}

/** Less than this and the first hour of flying would fill it. */
const LEAST_FREE = 20_000_000;
const cannot = (why: string): FolderProblem => new FolderProblem(3, `Not started. ${why}`);

function usableFolder(): void {
  const probe = inData('.writable');
  try {
    ensureDataFolder();
    accessSync(dataFolder(), constants.W_OK);
    const fd = openSync(probe, 'w', 0o600);
    writeSync(fd, 'x');
    closeSync(fd);
    rmSync(probe);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw cannot(
      code === 'ENOSPC'
        ? `The disk of the data folder ${dataFolder()} is full. Make room, then start again; nothing is lost.`
        : `The data folder ${dataFolder()} cannot be written (${code ?? String(error)}). Give it to the ` +
            'account that runs the server, or name another with JEITO_DATA.',
    );
  }
  const { bavail, bsize } = statfsSync(dataFolder());
  if (bavail * bsize < LEAST_FREE)
    throw cannot(
      `Less than ${LEAST_FREE / 1e6} MB are free for the data folder ${dataFolder()}. Make room, then start again; nothing is lost.`,
    );
}

/** A database that is damaged, cut or none at all is not opened for writing. */
async function wholeDatabase(): Promise<void> {
  const file = inData('jeito.sqlite');
  if (!existsSync(file)) return;
  const said = await new Promise<string>((resolve) => {
    const db = new sqlite3.Database(file, sqlite3.OPEN_READWRITE, (opening) => {
      if (opening) return resolve(opening.message);
      db.configure('busyTimeout', 5000);
      db.get<{ quick_check: string }>('PRAGMA quick_check(1)', (error, answer) =>
        db.close(() => resolve(error ? error.message : (answer?.quick_check ?? 'no answer'))),
      );
    });
  });
  if (said !== 'ok')
    throw cannot(
      `The database ${file} is damaged (${said}). Leave the folder as it is and restore the newest backup ` +
        'into another: npm run restore -- ARCHIVE --to FOLDER.',
    );
}

/** The signed head outside the database says how much there was: a ledger that has less was cut or is another one. */
async function ledgerThere(): Promise<void> {
  let head;
  try {
    head = readHead();
  } catch {
    throw cannot(
      `The signed head ${inData('ledger-head.json')} cannot be read. Bring it back from the newest backup, ` +
        'beside the database it belongs to.',
    );
  }
  if (head === null) return;
  const last = await ask.ledgerThere.one();
  const at = await LedgerEntries.first({ where: { seq: head.count }, pick: ['hash'] });
  const entries = last?.n ?? 0;
  if (entries < head.count || at?.hash !== head.hash)
    throw cannot(
      entries < head.count
        ? `The sign-off ledger has ${entries} entries and its signed head counts ${head.count}: the database ` +
            `in ${dataFolder()} is not the one that was signed. Bring that one back, or restore the newest ` +
            'backup into another folder: npm run restore -- ARCHIVE --to FOLDER.'
        : `Entry ${head.count} of the sign-off ledger is not the one its signed head names: the database in ` +
            `${dataFolder()} was changed or is another one. Restore the newest backup into another folder: npm ` +
            'run restore -- ARCHIVE --to FOLDER.',
    );
}
