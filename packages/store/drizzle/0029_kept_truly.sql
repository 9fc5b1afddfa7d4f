CREATE TABLE "plan_request" (
	"plan_id" uuid NOT NULL,
	"request" uuid NOT NULL,
	"version" integer NOT NULL,
	"answer" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "plan_request_plan_id_request_pk" PRIMARY KEY("plan_id","request")
);
--> statement-breakpoint
ALTER TABLE "plan_change" ALTER COLUMN "command" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_change" ALTER COLUMN "inverse" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "lineage" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "of_version" integer;--> statement-breakpoint
ALTER TABLE "plan_change" ADD COLUMN "lineage" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_change" ADD COLUMN "account" text;--> statement-breakpoint
ALTER TABLE "plan_request" ADD CONSTRAINT "plan_request_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "plan_request_by_version" ON "plan_request" USING btree ("plan_id","version");--> statement-breakpoint
UPDATE "plan_change" c SET "lineage" = 0 FROM "edition" e WHERE e."plan_id" = c."plan_id" AND e."working" AND c."created_at" < e."created_at";
