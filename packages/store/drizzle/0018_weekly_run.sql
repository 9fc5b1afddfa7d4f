CREATE TABLE "weekly_report" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"plan_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"state" text NOT NULL,
	"file" text,
	"words" text NOT NULL,
	"intake_id" uuid,
	"written" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "weekly_run" (
	"plan_id" uuid PRIMARY KEY NOT NULL,
	"workspace_id" uuid NOT NULL,
	"said" jsonb NOT NULL,
	"next_at" timestamp with time zone,
	"tries" integer DEFAULT 0 NOT NULL,
	"last_file" text,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "weekly_report" ADD CONSTRAINT "weekly_report_plan_id_weekly_run_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."weekly_run"("plan_id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "weekly_run" ADD CONSTRAINT "weekly_run_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "weekly_run" ADD CONSTRAINT "weekly_run_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "weekly_report_by_plan" ON "weekly_report" USING btree ("plan_id","at");--> statement-breakpoint
CREATE INDEX "weekly_run_by_next" ON "weekly_run" USING btree ("next_at");