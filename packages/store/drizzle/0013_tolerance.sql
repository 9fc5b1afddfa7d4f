ALTER TABLE "plan" ADD COLUMN "tolerance" jsonb;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "tolerances" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "currency" text;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "effort_day" integer;--> statement-breakpoint
ALTER TABLE "workspace" ADD COLUMN "locale" text DEFAULT 'en-GB' NOT NULL;