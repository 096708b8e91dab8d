import { text } from '../columns';
import { statement } from '../statement';
import { Users } from '../../account/tables';
import { LoggedFlights, StruckFlights } from '../../people/tables';
import { Types } from '../../hangar/tables';
import { ContentVersions } from '../../rules/tables';

export const passwordGiver = statement('app.passwordGiver', {
  params: ['id'],
  sql: `SELECT g.name, u.password_given_at AS at FROM users u JOIN users g ON g.id = u.password_given_by WHERE u.id = :id`,
  row: { name: Users.columns.name, at: Users.columns.passwordGivenAt },
});

export const loggedOf = statement('app.loggedOf', {
  params: ['pilotId'],
  sql: `SELECT f.*, ty.name, x.reason AS struck FROM flight_log f JOIN types ty ON ty.code = f.type_code LEFT JOIN flight_log_struck x ON x.log_id = f.id WHERE f.pilot_id = :pilotId ORDER BY f.flown_on DESC, f.entered_at DESC LIMIT 12`,
  row: {
    id: LoggedFlights.columns.id,
    flownOn: LoggedFlights.columns.flownOn,
    takeoffs: LoggedFlights.columns.takeoffs,
    landings: LoggedFlights.columns.landings,
    fullStops: LoggedFlights.columns.fullStops,
    night: LoggedFlights.columns.night,
    surface: LoggedFlights.columns.surface,
    hours: LoggedFlights.columns.hours,
    remark: LoggedFlights.columns.remark,
    name: Types.columns.name,
    struck: StruckFlights.columns.reason.nullable(),
  },
});

export const standards = statement('app.standards', {
  params: [],
  sql: `SELECT key, json_extract(body, '$.name') AS name FROM content_versions c WHERE kind = 'standard' AND version = (SELECT MAX(version) FROM content_versions WHERE kind = 'standard' AND key = c.key AND origin <> 'proposed') ORDER BY key`,
  row: { key: ContentVersions.columns.key, name: text },
});

export const programmesOffered = statement('app.programmesOffered', {
  params: [],
  sql: `SELECT key, json_extract(body, '$.offered') AS offered, (SELECT json_group_array(json(COALESCE(json_extract(i.value, '$.needs'), '[]'))) FROM json_each(body, '$.items') i) AS needs FROM content_versions c WHERE kind = 'programme' AND version = (SELECT MAX(version) FROM content_versions WHERE kind = 'programme' AND key = c.key AND origin <> 'proposed')`,
  row: { key: ContentVersions.columns.key, offered: text.nullable(), needs: text },
});
