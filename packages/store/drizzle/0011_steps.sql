CREATE TABLE "plan_step" (
	"plan_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"command" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "plan_step_plan_id_version_pk" PRIMARY KEY("plan_id","version")
);
--> statement-breakpoint
ALTER TABLE "plan_step" ADD CONSTRAINT "plan_step_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;