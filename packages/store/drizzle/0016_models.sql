CREATE TABLE "build_element" (
	"model_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"identifier" text NOT NULL,
	"name" text NOT NULL,
	"class" text NOT NULL,
	"type" text NOT NULL,
	"storey" text NOT NULL,
	"properties" jsonb NOT NULL,
	"classifications" jsonb NOT NULL,
	"length" double precision,
	"area" double precision,
	"volume" double precision,
	CONSTRAINT "build_element_model_id_position_pk" PRIMARY KEY("model_id","position")
);
--> statement-breakpoint
CREATE TABLE "build_model" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"plan_id" uuid NOT NULL,
	"key" text NOT NULL,
	"file" text NOT NULL,
	"content" "bytea",
	"geometry" "bytea",
	"element_count" integer DEFAULT 0 NOT NULL,
	"assigned" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"notes" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"replaces" uuid,
	"changes" jsonb,
	"taken" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "matches" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "element_codes" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "match_rules" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "build_views" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "build_element" ADD CONSTRAINT "build_element_model_id_build_model_id_fk" FOREIGN KEY ("model_id") REFERENCES "public"."build_model"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "build_model" ADD CONSTRAINT "build_model_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "build_element_once" ON "build_element" USING btree ("model_id","identifier");--> statement-breakpoint
CREATE INDEX "build_model_by_plan" ON "build_model" USING btree ("plan_id","created_at");