CREATE TABLE "file_layouts" (
	"name" text PRIMARY KEY NOT NULL,
	"layout" jsonb NOT NULL,
	"changed_by" text NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "editions" ADD COLUMN "layout" jsonb;