CREATE TABLE "comment" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"plan_id" uuid NOT NULL,
	"ref" text,
	"exhibit_id" uuid,
	"answers" uuid,
	"text" text NOT NULL,
	"account" text,
	"person" text,
	"done_at" timestamp with time zone,
	"done_by" text,
	"changed_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "comment_file" (
	"comment_id" uuid NOT NULL,
	"no" integer NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"content" "bytea" NOT NULL,
	CONSTRAINT "comment_file_comment_id_no_pk" PRIMARY KEY("comment_id","no")
);
--> statement-breakpoint
CREATE TABLE "notice" (
	"account" text NOT NULL,
	"comment_id" uuid NOT NULL,
	"read_at" timestamp with time zone,
	"mailed_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "notice_account_comment_id_pk" PRIMARY KEY("account","comment_id")
);
--> statement-breakpoint
ALTER TABLE "workspace" ADD COLUMN "comments_for_all" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "comment" ADD CONSTRAINT "comment_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "comment" ADD CONSTRAINT "comment_exhibit_id_exhibit_id_fk" FOREIGN KEY ("exhibit_id") REFERENCES "public"."exhibit"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "comment" ADD CONSTRAINT "comment_answers_comment_id_fk" FOREIGN KEY ("answers") REFERENCES "public"."comment"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "comment_file" ADD CONSTRAINT "comment_file_comment_id_comment_id_fk" FOREIGN KEY ("comment_id") REFERENCES "public"."comment"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice" ADD CONSTRAINT "notice_account_person_id_fk" FOREIGN KEY ("account") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice" ADD CONSTRAINT "notice_comment_id_comment_id_fk" FOREIGN KEY ("comment_id") REFERENCES "public"."comment"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "comment_by_plan" ON "comment" USING btree ("plan_id","created_at");--> statement-breakpoint
CREATE INDEX "notice_unread" ON "notice" USING btree ("account","read_at");