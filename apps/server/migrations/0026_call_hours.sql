CREATE TABLE "call_places" (
	"call_from" text PRIMARY KEY NOT NULL,
	"state" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "check_settings" ADD COLUMN "call_hours" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "contact_cube" ADD COLUMN "call_from" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "call_from" text DEFAULT '' NOT NULL;