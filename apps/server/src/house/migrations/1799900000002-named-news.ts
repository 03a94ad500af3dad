import type { MigrationInterface, QueryRunner } from 'typeorm';

/** News name what was changed, so that a browser reads only that again, and the café knows when it last was. */
export class NamedNews1799900000002 implements MigrationInterface {
  readonly name = 'NamedNews1799900000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
ALTER TABLE site ADD COLUMN house_changed_at timestamp with time zone;
CREATE OR REPLACE FUNCTION announce_house() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE what text := CASE TG_TABLE_NAME WHEN 'policy_version' THEN 'policies' WHEN 'recipe_version' THEN 'recipe'
                     ELSE to_jsonb(NEW)->>'kind' END;
BEGIN
  UPDATE site SET house_changed_at = clock_timestamp() WHERE id = NEW.site_id;
  PERFORM pg_notify('tempera_house', json_build_object('siteId', NEW.site_id, 'what', what)::text);
  RETURN NULL;
END $$;
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
