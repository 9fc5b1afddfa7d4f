CREATE TABLE "edition_columns" (
	"edition_id" uuid PRIMARY KEY NOT NULL,
	"version" integer NOT NULL,
	"content" "bytea" NOT NULL
);
--> statement-breakpoint
ALTER TABLE "edition_columns" ADD CONSTRAINT "edition_columns_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;