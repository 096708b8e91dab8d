import { real, text } from '../columns';
import { statement } from '../statement';

export const notify = statement('account.notify', {
  params: ['userId'],
  sql: `SELECT MAX(seq) AS n FROM notices WHERE user_id = :userId`,
  row: { n: real.nullable() },
});

export const unseenCount = statement('account.unseenCount', {
  params: ['id'],
  sql: `SELECT COUNT(*) AS n FROM notices WHERE user_id = :id AND seen_at IS NULL`,
  row: { n: real },
});

export const createToken = statement('account.createToken', {
  params: ['id', 'now'],
  sql: `SELECT COUNT(*) AS n FROM personal_tokens WHERE user_id = :id AND ended_at IS NULL AND expires_at > :now`,
  row: { n: real },
});

/** Passwords given to an account since an instant, and any since its last signature. */
export const givenPasswords = statement('account.givenPasswords', {
  params: ['userId', 'since'],
  sql: `SELECT u.name AS "by", r.given_at AS at FROM password_resets r JOIN users u ON u.id = r.given_by
     WHERE r.user_id = :userId AND (r.given_at >= :since OR r.given_at > COALESCE((SELECT MAX(signed_at) FROM ledger WHERE signer_id = :userId), ''))
     ORDER BY r.given_at`,
  row: { by: text, at: text },
});
