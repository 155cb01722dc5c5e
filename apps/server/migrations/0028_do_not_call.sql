CREATE TABLE "do_not_call" (
	"e164" text PRIMARY KEY NOT NULL,
	"is_listed" boolean NOT NULL,
	"register" text,
	"checked_at" timestamp with time zone NOT NULL,
	"ages_as" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "do_not_call_checks" (
	"job_id" uuid NOT NULL,
	"e164" text NOT NULL,
	"is_listed" boolean,
	"register" text,
	"cost" bigint,
	"order_id" text,
	"ordered_at" timestamp with time zone,
	"answered_at" timestamp with time zone,
	CONSTRAINT "do_not_call_checks_job_id_e164_pk" PRIMARY KEY("job_id","e164")
);
--> statement-breakpoint
ALTER TABLE "contact_cube" ADD COLUMN "suppressed_for" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "suppressed_for" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "suppression_lists" ADD COLUMN "scope" text DEFAULT 'all' NOT NULL;--> statement-breakpoint
CREATE INDEX "do_not_call_checks_e164" ON "do_not_call_checks" USING btree ("e164");--> statement-breakpoint
UPDATE "contacts" SET "suppressed_for" = 'all' WHERE "lane_reason" = 'suppressed';--> statement-breakpoint
UPDATE "contact_cube" SET "suppressed_for" = 'all' WHERE "lane_reason" = 'suppressed';
