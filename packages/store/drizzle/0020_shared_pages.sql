CREATE TABLE "shared_page" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"workspace_id" uuid NOT NULL,
	"plan_id" uuid,
	"exhibit_id" uuid,
	"folio_id" uuid,
	"lay" text NOT NULL,
	"frozen" boolean NOT NULL,
	"edition_id" uuid,
	"password" text,
	"origins" text[] DEFAULT '{}' NOT NULL,
	"expires_at" timestamp with time zone,
	"revoked_at" timestamp with time zone,
	"made_by" text,
	"opened" integer DEFAULT 0 NOT NULL,
	"opened_at" timestamp with time zone,
	"content" "bytea",
	"mark" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "shared_page" ADD CONSTRAINT "shared_page_workspace_id_workspace_id_fk" FOREIGN KEY ("workspace_id") REFERENCES "public"."workspace"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shared_page" ADD CONSTRAINT "shared_page_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shared_page" ADD CONSTRAINT "shared_page_exhibit_id_exhibit_id_fk" FOREIGN KEY ("exhibit_id") REFERENCES "public"."exhibit"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shared_page" ADD CONSTRAINT "shared_page_folio_id_folio_id_fk" FOREIGN KEY ("folio_id") REFERENCES "public"."folio"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "shared_page" ADD CONSTRAINT "shared_page_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "shared_page_by_workspace" ON "shared_page" USING btree ("workspace_id","created_at");