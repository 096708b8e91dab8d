import type { Goal, Role } from '@/domain/words';
import type { CurrentUser } from './permissions';

export interface UserRow {
  id: string;
  name: string;
  email: string;
  roles: string;
  session_version: number;
  pilot_id: string | null;
  authorised: string;
  mass_kg: number;
  own_crosswind_kt: number | null;
  certificate?: string;
  certificate_until?: string | null;
  closed_at?: string | null;
}

export const toUser = (r: UserRow): CurrentUser => ({
  id: r.id,
  name: r.name,
  email: r.email,
  roles: JSON.parse(r.roles) as Role[],
  pilotId: r.pilot_id,
  authorised: JSON.parse(r.authorised) as Goal[],
  massKg: r.mass_kg,
  ownCrosswindKt: r.own_crosswind_kt,
  certificate: r.certificate ?? '',
  certificateUntil: r.certificate_until ?? null,
});
