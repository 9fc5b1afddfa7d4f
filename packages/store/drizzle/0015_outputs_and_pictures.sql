ALTER TABLE "activity" ADD COLUMN "output" double precision;--> statement-breakpoint
ALTER TABLE "plan" ADD COLUMN "pictures" jsonb DEFAULT '[]'::jsonb NOT NULL;