-- depends: 0003_parts
-- A removed tour can be fetched back for a while.
ALTER TABLE tour ADD COLUMN removed_at timestamptz;
