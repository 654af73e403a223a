// @ts-check
import { passwordOf } from './cluster-folder.mjs';

/** The role the server works as: owner of what is kept, no superuser, makes no roles and no databases. */
export const SERVER_ROLE = 'unto_server';

/**
 * Makes the server's role, and everything kept its own: what an earlier release made belongs to the superuser.
 * @param {string} folder state folder, for its password @param {string} adminUrl
 * @returns {Promise<string>} its password
 */
export async function ownDatabase(folder, adminUrl) {
  const password = passwordOf(folder, 'server-password', { make: true });
  // Not there yet when a fresh clone is started: packages come first.
  const { default: pg } = await import('pg');
  const admin = new pg.Client(adminUrl);
  await admin.connect();
  try {
    const { rows } = await admin.query('SELECT 1 FROM pg_roles WHERE rolname = $1', [SERVER_ROLE]);
    if (!rows.length) await admin.query(`CREATE ROLE ${SERVER_ROLE} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE`);
    // Set anew at each start: the folder may be a copy with a password file of its own.
    await admin.query(`ALTER ROLE ${SERVER_ROLE} PASSWORD '${password}'`);
    await admin.query(HAND_OVER);
  } finally {
    await admin.end();
  }
  return password;
}

/** What belongs to the superuser in the schemas of ours. Sequences go with their tables. */
const HAND_OVER = `
DO $$
DECLARE one record;
BEGIN
  IF pg_get_userbyid((SELECT datdba FROM pg_database WHERE datname = current_database())) <> '${SERVER_ROLE}' THEN
    EXECUTE format('ALTER DATABASE %I OWNER TO ${SERVER_ROLE}', current_database());
  END IF;
  FOR one IN SELECT nspname AS name FROM pg_namespace
    WHERE nspname IN ('public', 'pgboss') AND pg_get_userbyid(nspowner) <> '${SERVER_ROLE}'
  LOOP EXECUTE format('ALTER SCHEMA %I OWNER TO ${SERVER_ROLE}', one.name); END LOOP;
  FOR one IN SELECT c.oid::regclass AS name, c.relkind AS kind FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname IN ('public', 'pgboss') AND c.relkind IN ('r', 'p', 'v', 'm') AND pg_get_userbyid(c.relowner) <> '${SERVER_ROLE}'
  LOOP EXECUTE format('ALTER %s %s OWNER TO ${SERVER_ROLE}', CASE one.kind WHEN 'v' THEN 'VIEW' WHEN 'm' THEN 'MATERIALIZED VIEW' ELSE 'TABLE' END, one.name); END LOOP;
  FOR one IN SELECT c.oid::regclass AS name FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
    WHERE n.nspname IN ('public', 'pgboss') AND c.relkind = 'S' AND pg_get_userbyid(c.relowner) <> '${SERVER_ROLE}'
    AND NOT EXISTS (SELECT 1 FROM pg_depend d WHERE d.objid = c.oid AND d.deptype IN ('a', 'i'))
  LOOP EXECUTE format('ALTER SEQUENCE %s OWNER TO ${SERVER_ROLE}', one.name); END LOOP;
  FOR one IN SELECT p.oid::regprocedure AS name FROM pg_proc p JOIN pg_namespace n ON n.oid = p.pronamespace
    WHERE n.nspname IN ('public', 'pgboss') AND pg_get_userbyid(p.proowner) <> '${SERVER_ROLE}'
  LOOP EXECUTE format('ALTER ROUTINE %s OWNER TO ${SERVER_ROLE}', one.name); END LOOP;
  FOR one IN SELECT t.oid::regtype AS name FROM pg_type t JOIN pg_namespace n ON n.oid = t.typnamespace
    WHERE n.nspname IN ('public', 'pgboss') AND t.typtype IN ('e', 'd') AND pg_get_userbyid(t.typowner) <> '${SERVER_ROLE}'
  LOOP EXECUTE format('ALTER TYPE %s OWNER TO ${SERVER_ROLE}', one.name); END LOOP;
END $$`;
