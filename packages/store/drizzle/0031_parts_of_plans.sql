CREATE TABLE "element_code" (
	"plan_id" uuid NOT NULL,
	"field" text NOT NULL,
	"code" text NOT NULL,
	"elements" jsonb NOT NULL,
	CONSTRAINT "element_code_plan_id_field_code_pk" PRIMARY KEY("plan_id","field","code")
);
--> statement-breakpoint
CREATE TABLE "element_match" (
	"plan_id" uuid NOT NULL,
	"activity" text NOT NULL,
	"effect" text NOT NULL,
	"elements" jsonb NOT NULL,
	CONSTRAINT "element_match_plan_id_activity_effect_pk" PRIMARY KEY("plan_id","activity","effect")
);
--> statement-breakpoint
CREATE TABLE "plan_picture" (
	"plan_id" uuid NOT NULL,
	"key" text NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"data" text NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	CONSTRAINT "plan_picture_plan_id_key_pk" PRIMARY KEY("plan_id","key")
);
--> statement-breakpoint
ALTER TABLE "element_code" ADD CONSTRAINT "element_code_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "element_match" ADD CONSTRAINT "element_match_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_picture" ADD CONSTRAINT "plan_picture_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
INSERT INTO "plan_picture" SELECT p."id", x.value->>'id', x.position, x.value->>'name', x.value->>'data', (x.value->>'width')::int, (x.value->>'height')::int
FROM "plan" p, jsonb_array_elements(p."pictures") WITH ORDINALITY x(value, position)
ON CONFLICT DO NOTHING;--> statement-breakpoint
INSERT INTO "element_match" SELECT p."id", m.value->>'activity', m.value->>'effect', jsonb_agg(DISTINCT e.value COLLATE "C" ORDER BY e.value COLLATE "C")
FROM "plan" p, jsonb_array_elements(p."matches") m, jsonb_array_elements_text(m.value->'elements') e
GROUP BY 1, 2, 3;--> statement-breakpoint
INSERT INTO "element_code" SELECT p."id", c.value->>'field', c.value->>'code', jsonb_agg(DISTINCT e.value COLLATE "C" ORDER BY e.value COLLATE "C")
FROM "plan" p, jsonb_array_elements(p."element_codes") c, jsonb_array_elements_text(c.value->'elements') e
GROUP BY 1, 2, 3;--> statement-breakpoint
ALTER TABLE "plan" DROP COLUMN "pictures";--> statement-breakpoint
ALTER TABLE "plan" DROP COLUMN "matches";--> statement-breakpoint
ALTER TABLE "plan" DROP COLUMN "element_codes";