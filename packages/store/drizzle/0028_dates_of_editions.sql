ALTER TABLE "activity" ADD COLUMN "promised" jsonb;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "source" text;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "as_promised" boolean;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "as_promised" boolean DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE "edition" SET "source" = "plan"."source", "as_promised" = false FROM "plan" WHERE "plan"."id" = "edition"."plan_id" AND NOT "edition"."working";
