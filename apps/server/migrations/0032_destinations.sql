CREATE TABLE "destinations" (
	"id" text PRIMARY KEY NOT NULL,
	"document" jsonb NOT NULL,
	"changed_by" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "edition_companies" (
	"edition_id" uuid NOT NULL,
	"key" text NOT NULL,
	CONSTRAINT "edition_companies_edition_id_key_pk" PRIMARY KEY("edition_id","key")
);
--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "takes" text DEFAULT 'people' NOT NULL;