DELETE FROM tour WHERE removed_at IS NOT NULL;
ALTER TABLE tour DROP COLUMN removed_at;
