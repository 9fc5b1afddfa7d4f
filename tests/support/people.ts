import { Asker, type OwnServer } from './ownServer';

export const PASSWORD = 'tide tables and lanterns';

/** The first account of an application. */
export async function firstOwner(server: OwnServer): Promise<Asker> {
  const asker = new Asker(server.address);
  await asker.get('POST', '/api/people', { name: 'Ada Reed', email: 'ada@saltmere.example', password: PASSWORD });
  return asker;
}

/** The secret of the last letter to somebody, as it stands in the mailbox. */
export async function secretFor(server: OwnServer, email: string): Promise<string> {
  const { rows } = await server.pool.query<{ text: string }>(
    'select text from mail where "to" = $1 order by created_at desc limit 1',
    [email],
  );
  const found = /\/(?:invited|reset)\/([\w-]+)/.exec(rows[0]?.text ?? '');
  if (!found) throw new Error(`there is no letter to ${email}`);
  return found[1]!;
}

/** Asks somebody in and lets them join. */
export async function joined(
  server: OwnServer,
  owner: Asker,
  name: string,
  role: string,
  planId: string | null = null,
): Promise<Asker> {
  const email = `${name.toLowerCase().replaceAll(' ', '.')}@saltmere.example`;
  await owner.get('POST', '/api/invitations', { email, role, planId });
  const asker = new Asker(server.address);
  const token = await secretFor(server, email);
  await asker.get('POST', '/api/invitations/taken', { token, account: { name, password: PASSWORD } });
  return asker;
}

/** Somebody who owns a workspace of their own in the same database, and belongs to no other. */
export async function stranger(server: OwnServer, owner: Asker, name = 'Strange Owner'): Promise<Asker> {
  const asker = await joined(server, owner, name, 'viewer');
  await server.pool.query(
    `with made as (insert into workspace (name) values ('Elsewhere') returning id)
     update member set role = 'owner', workspace_id = (select id from made)
     where person_id = (select id from person where name = $1)`,
    [name],
  );
  return asker;
}
