import { type SQL, sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'

/**
 * Contacts of two lists that are one person for the purpose of comparing: one personal address, or one number under
 * the same family name, whichever way round it was written. Contacts stand for all that are joined to them.
 * @param inLists a condition on `o.list_id`, the other list
 * @returns a query of `id`, the `other` contact and its `list_id`, for contacts `c` that fit the condition
 */
export function matchesElsewhere(ofContacts: SQL, inLists: SQL): SQL {
  const standing = sql`oc.joined_into is null and ${isShown('oc')}`
  return sql`
    select c.id, oc.id as other, oc.list_id from contacts c
    join contact_numbers n on n.contact_id = c.id and n.is_valid
    join contact_numbers o on o.e164 = n.e164 and o.is_valid and o.list_id <> n.list_id and ${inLists}
    join contacts oc on oc.id = o.contact_id and ${standing}
      and (c.family_name = '' or oc.family_name = '' or lower(c.family_name) in (lower(oc.family_name), lower(oc.given_name)))
    where ${ofContacts}
    union
    select c.id, oc.id, oc.list_id from contacts c
    join contact_emails n on n.contact_id = c.id and n.kind <> 'role'
    join contact_emails o on o.address = n.address and o.kind <> 'role' and o.list_id <> n.list_id and ${inLists}
    join contacts oc on oc.id = o.contact_id and ${standing}
    where ${ofContacts}`
}
