CREATE TABLE "arrangement" (
	"plan_id" uuid NOT NULL,
	"name" text NOT NULL,
	"arrangement" jsonb NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "arrangement_plan_id_name_pk" PRIMARY KEY("plan_id","name")
);
--> statement-breakpoint
ALTER TABLE "arrangement" ADD CONSTRAINT "arrangement_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;