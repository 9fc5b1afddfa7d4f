CREATE TABLE "kept_book" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid NOT NULL,
	"name" text NOT NULL,
	"field" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "plan_change" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "plan_change_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"plan_id" uuid NOT NULL,
	"words" text NOT NULL,
	"command" jsonb NOT NULL,
	"inverse" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL,
	"person" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "starter" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid NOT NULL,
	"name" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"plan" jsonb NOT NULL,
	"activities" integer NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "activity" ADD COLUMN "assignments" jsonb;--> statement-breakpoint
ALTER TABLE "code_field" ADD COLUMN "fill" jsonb;--> statement-breakpoint
ALTER TABLE "code_value" ADD COLUMN "parent" text;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "resources" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "required" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "aside" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "source" ADD COLUMN "person" text;--> statement-breakpoint
ALTER TABLE "kept_book" ADD CONSTRAINT "kept_book_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_change" ADD CONSTRAINT "plan_change_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "starter" ADD CONSTRAINT "starter_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "kept_book_by_name" ON "kept_book" USING btree ("workspace_id","name");--> statement-breakpoint
CREATE INDEX "plan_change_by_plan" ON "plan_change" USING btree ("plan_id","id");--> statement-breakpoint
CREATE INDEX "starter_by_workspace" ON "starter" USING btree ("workspace_id","name");