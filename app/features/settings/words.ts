import { ROLES, type AuditRow, type Role } from '~contract/account'

/** What stands in Workshop and in one’s own account. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'Owner: everything, and who may come in',
  member: 'Member: plans, pours and keeps the shelf',
  viewer: 'Viewer: looks at everything, changes nothing',
}
export const ROLE_CHOICES = ROLES.map(id => ({ id, name: id.replace(/^./, c => c.toUpperCase()) }))

/** A line of the list of what was done about people, without its time and place. */
export function auditWords({ code, who, about }: Pick<AuditRow, 'code' | 'who' | 'about'>): string {
  switch (code) {
    case 'opened': return `${who} opened the workshop.`
    case 'signed-in': return `${who} signed in.`
    case 'guessing': return `Somebody tried many passwords for ${about}.`
    case 'joined': return `${who} came in by an invitation, as ${about}.`
    case 'role': return `${who} changed what somebody may do: ${about}.`
    case 'removed': return `${who} took ${about} out of the workshop.`
    case 'invited': return about ? `${who} invited ${about}.` : `${who} made an invitation.`
    case 'invitation-taken-back': return `${who} took back the invitation${about ? ` of ${about}` : ''}.`
    case 'reset-made': return `${who} made a link to a new password for ${about}.`
    case 'reset-used': return `${who} chose a new password by such a link.`
    case 'password': return `${who} chose a new password.`
    case 'second-factor-on': return `${who} signs in with a time code too, from now on.`
    case 'second-factor-off': return `${who} signs in by password alone again.`
    case 'passkey-added': return `${who} signs in with the passkey “${about}” too, from now on.`
    case 'passkey-removed': return `${who} removed the passkey “${about}”.`
    case 'sessions-ended': return `${who} signed out everywhere else.`
    case 'link-made': return `${who} made the link “${about}”.`
    case 'device-made': return `${who} brought the device “${about}” in.`
    case 'device-taken-back': return `${who} took the device “${about}” out.`
    case 'link-taken-back': return `${who} took back the link “${about}”.`
  }
}

/** A signed-in browser, as its person knows it. */
export const deviceWords = (device: string) => device || 'A browser that does not say what it is'
