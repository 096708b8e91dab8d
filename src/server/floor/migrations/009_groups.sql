-- The gear-and-mass group knows the view and the power: recorded landings and the credited wind move with it.
CREATE TEMP VIEW sheet_groups AS
  SELECT id, type_id, version,
    CASE WHEN json_extract(sheet, '$.masses.maxTakeoffKg.value') <= 750 THEN 'light' WHEN json_extract(sheet, '$.masses.maxTakeoffKg.value') <= 1200 THEN 'medium' ELSE 'heavy' END
      || '-' || json_extract(sheet, '$.gear.layout') AS broad,
    CASE WHEN EXISTS (SELECT 1 FROM json_each(sheet, '$.attributes') a WHERE json_extract(a.value, '$.key') = 'over-nose' AND json_extract(a.value, '$.value') = 'blind') THEN '-blind' ELSE '' END
      || CASE WHEN json_extract(sheet, '$.engine.powerHp.value') > 200 THEN '-powerful' ELSE '' END AS more
  FROM type_versions WHERE json_extract(sheet, '$.gear.layout') IS NOT NULL;
UPDATE landings SET gear_group = COALESCE(
  (SELECT g.broad || g.more FROM sorties s JOIN checkouts c ON c.id = COALESCE(landings.checkout_id, s.checkout_id) JOIN sheet_groups g ON g.id = c.type_version_id WHERE s.id = landings.sortie_id),
  gear_group);
-- A credit was given for mass and gear alone: it stays with the least demanding group of them the school flies.
UPDATE pilots SET crosswind_credit = json_set(crosswind_credit, '$.group', COALESCE(
  (SELECT g.broad || g.more FROM sheet_groups g WHERE g.broad = json_extract(pilots.crosswind_credit, '$.group') AND g.version = (SELECT MAX(v.version) FROM type_versions v WHERE v.type_id = g.type_id) ORDER BY length(g.more), g.more LIMIT 1),
  json_extract(crosswind_credit, '$.group')))
WHERE crosswind_credit IS NOT NULL;
DROP VIEW sheet_groups;
