// Drafts of plans that nobody has kept yet, in the browser's own database: they outlive a reload, a lost page and power.
import { openDB, type IDBPDatabase } from 'idb';
import type { Draft } from './draft';

export interface KeptDraft {
  revises: number; // the entry whose plan it was begun from; 0 of a new car
  draft: Draft;
  was?: Draft; // the plan it was begun from, as a draft; the first versions did not keep it
  at: number; // when it was written, ms
}

const STORE = 'drafts';
let opened: Promise<IDBPDatabase> | null = null;
const database = () =>
  (opened ??= openDB('ready-corner-drafts', 1, { upgrade: (db) => void db.createObjectStore(STORE) }).catch((error) => {
    opened = null;
    throw error;
  }));

/** Where storage is refused or full there is simply no draft; the page itself still has it. */
export async function draftAt(key: string): Promise<KeptDraft | null> {
  try {
    return ((await (await database()).get(STORE, key)) as KeptDraft | undefined) ?? null;
  } catch {
    return null;
  }
}

export async function keepDraft(key: string, kept: KeptDraft): Promise<boolean> {
  try {
    await (await database()).put(STORE, kept, key);
    return true;
  } catch {
    return false;
  }
}

export async function dropDraft(key: string): Promise<void> {
  try {
    await (await database()).delete(STORE, key);
  } catch {
    // nothing is kept there, so nothing is to be dropped
  }
}
