import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { z } from 'zod';

/** The roles of a cluster: who may do everything, who owns what is kept, and who reads and writes it. */
export const ROLES = { all: 'kerbe', owner: 'kerbe_owner', server: 'kerbe_server' } as const;

const Passwords = z.object({ all: z.string().min(32), owner: z.string().min(32), server: z.string().min(32) });
export type Passwords = z.infer<typeof Passwords>;

/** Nobody is let in without a password, and nobody from elsewhere than this computer. */
export const ACCESS = 'host all all 127.0.0.1/32 scram-sha-256\n';

/** The passwords of a cluster; nothing where it has none yet, as those made by older versions. */
export function readPasswords(file: string): Passwords | undefined {
  if (!existsSync(file)) return undefined;
  try {
    return Passwords.parse(JSON.parse(readFileSync(file, 'utf8')));
  } catch {
    return undefined;
  }
}

/** New passwords, not written down yet. */
export const newPasswords = (): Passwords => {
  const one = () => randomBytes(24).toString('hex');
  return { all: one(), owner: one(), server: one() };
};

/** Writes passwords down for this account alone; the file is there whole or not at all. */
export function keepPasswords(file: string, passwords: Passwords): void {
  writeFileSync(`${file}.new`, JSON.stringify(passwords), { mode: 0o600 });
  renameSync(`${file}.new`, file);
}

/**
 * What sets a cluster's roles up, one statement a line, whether it was just made or is an older one with everything in it:
 * what is kept belongs to the owner, the server reads and writes it, and neither may do more.
 */
export function accessStatements(passwords: Passwords): string {
  const { all, owner, server } = ROLES;
  const role = (name: string, password: string) => [
    `DO $$ BEGIN IF NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '${name}') THEN CREATE ROLE ${name} LOGIN; END IF; END $$`,
    `ALTER ROLE ${name} LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION NOBYPASSRLS PASSWORD '${password}'`,
  ];
  const given = 'SELECT, INSERT, UPDATE, DELETE';
  return [
    `SET password_encryption = 'scram-sha-256'`,
    `ALTER ROLE ${all} PASSWORD '${passwords.all}'`,
    ...role(owner, passwords.owner),
    ...role(server, passwords.server),
    `REVOKE ALL ON SCHEMA public FROM PUBLIC`,
    `REVOKE TEMPORARY ON DATABASE postgres FROM PUBLIC`,
    `ALTER SCHEMA public OWNER TO ${owner}`,
    `DO $$ DECLARE r record; BEGIN FOR r IN SELECT c.oid::regclass AS name, c.relkind FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace WHERE n.nspname = 'public' AND c.relkind IN ('r', 'v', 'm') LOOP EXECUTE format('ALTER TABLE %s OWNER TO ${owner}', r.name); END LOOP; END $$`,
    `GRANT USAGE ON SCHEMA public TO ${server}`,
    `GRANT ${given} ON ALL TABLES IN SCHEMA public TO ${server}`,
    `GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO ${server}`,
    `ALTER DEFAULT PRIVILEGES FOR ROLE ${owner} IN SCHEMA public GRANT ${given} ON TABLES TO ${server}`,
    `ALTER DEFAULT PRIVILEGES FOR ROLE ${owner} IN SCHEMA public GRANT USAGE, SELECT ON SEQUENCES TO ${server}`,
  ]
    .map((line) => `${line};\n`)
    .join('');
}
