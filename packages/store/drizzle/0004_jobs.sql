CREATE TABLE "job" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"input" jsonb NOT NULL,
	"access" jsonb NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"revision" integer DEFAULT 1 NOT NULL,
	"step" text DEFAULT '' NOT NULL,
	"share" double precision DEFAULT 0 NOT NULL,
	"result" jsonb,
	"file" "bytea",
	"error" text,
	"worker" text,
	"seen_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "intake" ALTER COLUMN "map" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "activity_count" integer;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "link_count" integer;--> statement-breakpoint
ALTER TABLE "exhibit" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "exhibit" ADD COLUMN "part_versions" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "exhibit" ADD COLUMN "deleted_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "tables" "bytea";--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "preview" jsonb;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "plan_id" uuid;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "deleted_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "job_by_state" ON "job" USING btree ("state","created_at");--> statement-breakpoint
CREATE INDEX "job_by_workspace" ON "job" USING btree ("workspace_id");--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;