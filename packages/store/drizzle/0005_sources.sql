CREATE TABLE "intake_file" (
	"intake_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"content" "bytea" NOT NULL,
	CONSTRAINT "intake_file_intake_id_position_pk" PRIMARY KEY("intake_id","position")
);
--> statement-breakpoint
CREATE TABLE "refresh" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"plan_id" uuid NOT NULL,
	"name" text NOT NULL,
	"changes" jsonb NOT NULL,
	"counts" jsonb NOT NULL,
	"undone" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "source" (
	"plan_id" uuid NOT NULL,
	"no" integer NOT NULL,
	"reading" integer NOT NULL,
	"name" text NOT NULL,
	"sheet" text,
	"map" jsonb,
	"content" "bytea",
	"aliases" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"problems" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "source_plan_id_no_pk" PRIMARY KEY("plan_id","no")
);
--> statement-breakpoint
ALTER TABLE "activity" ADD COLUMN "source_no" integer;--> statement-breakpoint
ALTER TABLE "activity" ADD COLUMN "said" jsonb;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "target_plan" uuid;--> statement-breakpoint
ALTER TABLE "intake" ADD COLUMN "state" jsonb;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "baseline_edition" uuid;--> statement-breakpoint
ALTER TABLE "intake_file" ADD CONSTRAINT "intake_file_intake_id_intake_id_fk" FOREIGN KEY ("intake_id") REFERENCES "public"."intake"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "refresh" ADD CONSTRAINT "refresh_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "source" ADD CONSTRAINT "source_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "refresh_by_plan" ON "refresh" USING btree ("plan_id","created_at");--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_target_plan_plan_id_fk" FOREIGN KEY ("target_plan") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;