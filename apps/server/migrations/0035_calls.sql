CREATE TABLE "calls" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"contact_id" bigint NOT NULL,
	"e164" text NOT NULL,
	"outcome" text NOT NULL,
	"again_at" timestamp with time zone,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"before" jsonb,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE INDEX "calls_contact" ON "calls" USING btree ("contact_id","made_at");--> statement-breakpoint
CREATE INDEX "calls_list" ON "calls" USING btree ("list_id","made_at");