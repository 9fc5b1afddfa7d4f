ALTER TABLE "activity" ADD COLUMN "rate" double precision;--> statement-breakpoint
ALTER TABLE "activity" ADD COLUMN "crews" double precision;