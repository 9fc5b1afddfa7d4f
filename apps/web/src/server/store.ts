import 'server-only';
import { firstWorkspace, openStore, type Store } from '@clembo/store';

// Kept on the global object, so that reloading modules in development does not open a pool each time.
const kept = globalThis as { clemboStore?: Store; clemboWorkspace?: Promise<string> };

/** The store of this process, opened when it is first needed. */
export function store(): Store {
  if (!kept.clemboStore) {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error('DATABASE_URL is not set; start the application with `npm start`.');
    kept.clemboStore = openStore(url);
  }
  return kept.clemboStore;
}

/** The workspace of whoever asks. Until there are accounts there is one; every question to the store names it. */
export function currentWorkspace(): Promise<string> {
  kept.clemboWorkspace ??= firstWorkspace(store()).then((w) => w.id);
  kept.clemboWorkspace.catch(() => {
    kept.clemboWorkspace = undefined;
  });
  return kept.clemboWorkspace;
}
