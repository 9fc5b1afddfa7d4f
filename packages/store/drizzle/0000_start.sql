CREATE TABLE "activity" (
	"edition_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"ref" text NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"parent" text,
	"calendar" text,
	"duration" integer,
	"start" integer,
	"finish" integer,
	"actual_start" integer,
	"actual_finish" integer,
	"percent" double precision,
	"remaining" integer,
	"constraint" jsonb,
	"deadline" integer,
	"stretches" jsonb,
	"on_hold" boolean NOT NULL,
	"codes" jsonb NOT NULL,
	"responsible" jsonb,
	"effort" double precision,
	"actual_effort" double precision,
	"cost" bigint,
	"actual_cost" bigint,
	"from_place" integer,
	"to_place" integer,
	"quantity" double precision,
	"notes" text NOT NULL,
	CONSTRAINT "activity_edition_id_position_pk" PRIMARY KEY("edition_id","position")
);
--> statement-breakpoint
CREATE TABLE "calendar" (
	"edition_id" uuid NOT NULL,
	"key" text NOT NULL,
	"position" integer NOT NULL,
	"spec" jsonb NOT NULL,
	CONSTRAINT "calendar_edition_id_key_pk" PRIMARY KEY("edition_id","key")
);
--> statement-breakpoint
CREATE TABLE "code_field" (
	"plan_id" uuid NOT NULL,
	"key" text NOT NULL,
	"name" text NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "code_field_plan_id_key_pk" PRIMARY KEY("plan_id","key")
);
--> statement-breakpoint
CREATE TABLE "code_value" (
	"plan_id" uuid NOT NULL,
	"field" text NOT NULL,
	"position" integer NOT NULL,
	"code" text NOT NULL,
	"title" text NOT NULL,
	"colour" text,
	"shape" text,
	CONSTRAINT "code_value_plan_id_field_position_pk" PRIMARY KEY("plan_id","field","position")
);
--> statement-breakpoint
CREATE TABLE "column_map" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid NOT NULL,
	"headings" text NOT NULL,
	"map" jsonb NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "edition" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"plan_id" uuid NOT NULL,
	"name" text NOT NULL,
	"working" boolean NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"status_date" integer,
	"start" integer,
	"calendar" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "exhibit" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"plan_id" uuid NOT NULL,
	"name" text NOT NULL,
	"brief" jsonb NOT NULL,
	"position" integer NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "intake" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid NOT NULL,
	"source" text NOT NULL,
	"content" "bytea" NOT NULL,
	"sheet" text,
	"map" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "link" (
	"edition_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"from_ref" text NOT NULL,
	"to_ref" text NOT NULL,
	"type" text NOT NULL,
	"lag" integer NOT NULL,
	"lag_calendar" text NOT NULL,
	CONSTRAINT "link_edition_id_position_pk" PRIMARY KEY("edition_id","position")
);
--> statement-breakpoint
CREATE TABLE "plan" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid NOT NULL,
	"name" text NOT NULL,
	"source" text NOT NULL,
	"in_hours" boolean NOT NULL,
	"critical_float" integer NOT NULL,
	"retained_logic" boolean NOT NULL,
	"periods" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "workspace" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "activity" ADD CONSTRAINT "activity_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "calendar" ADD CONSTRAINT "calendar_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "code_field" ADD CONSTRAINT "code_field_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "code_value" ADD CONSTRAINT "code_value_plan_id_field_code_field_plan_id_key_fk" FOREIGN KEY ("plan_id","field") REFERENCES "public"."code_field"("plan_id","key") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "column_map" ADD CONSTRAINT "column_map_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edition" ADD CONSTRAINT "edition_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "exhibit" ADD CONSTRAINT "exhibit_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "link" ADD CONSTRAINT "link_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan" ADD CONSTRAINT "plan_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "activity_by_ref" ON "activity" USING btree ("edition_id","ref");--> statement-breakpoint
CREATE UNIQUE INDEX "column_map_by_headings" ON "column_map" USING btree ("workspace_id","headings");--> statement-breakpoint
CREATE INDEX "edition_by_plan" ON "edition" USING btree ("plan_id","created_at");--> statement-breakpoint
CREATE INDEX "exhibit_by_plan" ON "exhibit" USING btree ("plan_id","position");--> statement-breakpoint
CREATE INDEX "intake_by_workspace" ON "intake" USING btree ("workspace_id","created_at");--> statement-breakpoint
CREATE INDEX "plan_by_workspace" ON "plan" USING btree ("workspace_id","updated_at");