-- A date may come from an entry of the ledger: it ends with that entry.
ALTER TABLE person_dates ADD COLUMN ledger_id TEXT;
-- A twin variant is held for its type alone; what a sign-off of before gave names the type of its checkout.
UPDATE qualifications SET kind = 'MEP-variant:' || (SELECT ty.code FROM ledger l JOIN checkouts c ON c.id = l.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id WHERE l.id = qualifications.ledger_id)
  WHERE kind = 'MEP-variant' AND ledger_id IN (SELECT l.id FROM ledger l JOIN checkouts c ON c.id = l.checkout_id);
-- Of the hours in a type, those in command; null = nobody told them apart.
ALTER TABLE pilot_hours ADD COLUMN pic REAL CHECK (pic IS NULL OR pic >= 0);
