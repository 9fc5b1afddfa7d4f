-- What is begun cannot be carried over: its map is of another form. It is kept for a week only.
DELETE FROM "intake" WHERE "plan_id" IS NULL;--> statement-breakpoint
INSERT INTO "source" ("plan_id", "no", "reading", "name", "sheet")
  SELECT "plan_id", 1, 1, "source"->>'name', "source"->>'sheet' FROM "edition" WHERE "working" AND "source" IS NOT NULL;--> statement-breakpoint
UPDATE "activity" SET "source_no" = 1 WHERE "source_row" IS NOT NULL
  AND "edition_id" IN (SELECT "id" FROM "edition" WHERE "working" AND "source" IS NOT NULL);--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "content";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "sheet";--> statement-breakpoint
ALTER TABLE "intake" DROP COLUMN "map";