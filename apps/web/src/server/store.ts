import 'server-only';
import { type Access, firstWorkspace, openStore, type Store } from '@clembo/store';

// Kept on the global object, so that reloading modules in development does not open a pool each time.
const kept = globalThis as { clemboStore?: Store; clemboWorkspace?: Promise<{ id: string }> };

/** The store of this process, opened when it is first needed. */
export function store(): Store {
  if (!kept.clemboStore) {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error('DATABASE_URL is not set; start the application with `npm start`.');
    kept.clemboStore = openStore(url);
  }
  return kept.clemboStore;
}

/** Whoever sits at the machine, while nobody has an account: the owner of the one workspace there is. */
export async function accessOfAnybody(): Promise<Access> {
  kept.clemboWorkspace ??= firstWorkspace(store());
  // What failed is asked again the next time.
  kept.clemboWorkspace.catch(() => delete kept.clemboWorkspace);
  const { id } = await kept.clemboWorkspace;
  return { workspace: id, person: null, role: 'owner' };
}
