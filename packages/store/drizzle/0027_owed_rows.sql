ALTER TABLE "edition" ADD COLUMN "owed" jsonb;--> statement-breakpoint
CREATE INDEX "edition_owing" ON "edition" USING btree ("id") WHERE "edition"."owed" is not null;--> statement-breakpoint
-- Columns are written otherwise now; those that are there are a copy of rows, and made again when they are asked for.
DELETE FROM "edition_columns";
