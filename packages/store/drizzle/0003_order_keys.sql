ALTER TABLE "activity" ADD COLUMN "order_key" double precision;--> statement-breakpoint
UPDATE "activity" SET "order_key" = ("position" + 1) * 1024.0;--> statement-breakpoint
ALTER TABLE "activity" ALTER COLUMN "order_key" SET NOT NULL;--> statement-breakpoint
-- References that stood twice in an edition are told apart before they become the key.
UPDATE "activity" a SET "ref" = a."ref" || ' (' || n."k" || ')' FROM (SELECT "edition_id", "position", row_number() OVER (PARTITION BY "edition_id", "ref" ORDER BY "position") AS "k" FROM "activity") n WHERE n."edition_id" = a."edition_id" AND n."position" = a."position" AND n."k" > 1;--> statement-breakpoint
DROP INDEX "activity_by_ref";--> statement-breakpoint
ALTER TABLE "activity" DROP CONSTRAINT "activity_edition_id_position_pk";--> statement-breakpoint
ALTER TABLE "link" DROP CONSTRAINT "link_edition_id_position_pk";--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_edition_id_ref_pk" PRIMARY KEY("edition_id","ref");--> statement-breakpoint
ALTER TABLE "activity" ADD COLUMN "source_row" integer;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "source" jsonb;--> statement-breakpoint
ALTER TABLE "link" ADD COLUMN "id" bigint PRIMARY KEY NOT NULL GENERATED ALWAYS AS IDENTITY (sequence name "link_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1);--> statement-breakpoint
CREATE INDEX "activity_in_order" ON "activity" USING btree ("edition_id","order_key");--> statement-breakpoint
CREATE UNIQUE INDEX "one_working_edition" ON "edition" USING btree ("plan_id") WHERE "edition"."working";--> statement-breakpoint
CREATE INDEX "link_by_edition" ON "link" USING btree ("edition_id");--> statement-breakpoint
ALTER TABLE "activity" DROP COLUMN "position";--> statement-breakpoint
ALTER TABLE "link" DROP COLUMN "position";
