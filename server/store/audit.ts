import { randomUUID } from 'node:crypto'
import type { AuditCode, AuditRow } from '~contract/account'
import type { Scope } from './scope'

/** What was done about people and sign-ins, for the workshop's owners to read. */
const SHOWN = 200

export async function writeAudit(
  scope: Scope,
  entry: { readonly code: AuditCode, readonly who?: string, readonly about?: string, readonly place?: string },
): Promise<void> {
  await scope.insert('audit', [{ id: randomUUID(), ...entry }]).execute()
}

export async function auditRows(scope: Scope): Promise<AuditRow[]> {
  const rows = await scope.select('audit').select(['id', 'at', 'code', 'who', 'about', 'place'])
    .orderBy('at', 'desc').limit(SHOWN).execute()
  return rows.map(r => ({ ...r, at: r.at.getTime() }))
}
