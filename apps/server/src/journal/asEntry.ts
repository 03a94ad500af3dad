/** Facts as core reads them, straight from the database. */

/** SQL: when a fact happened by the house's clock; facts from before clocks were measured may lie after their arrival. @param fact the query's name for it */
export const houseAt = (fact: string): string => `LEAST(${fact}.at, ${fact}.received_at)`;

/**
 * SQL: the columns of an `Entry`, without a shot's trace. The database writes the moment out: over thousands of rows that
 * is half the time of reading them as dates. @param fact the query's name for it
 */
export const entryColumns = (fact: string): string =>
  `${fact}.id, ${fact}.kind, to_char(${houseAt(fact)} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS at,
   ${fact}.person_id AS "personId", ${fact}.grinder_id AS "grinderId", ${fact}.group_id AS "groupId",
   ${fact}.body - 'trace' AS body`;
