ALTER TABLE "activity" ADD COLUMN "line" text;--> statement-breakpoint
ALTER TABLE "activity" ADD COLUMN "occupies" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "activity" ADD COLUMN "rates" jsonb;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "lines" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "percent_shown" text DEFAULT 'stated' NOT NULL;