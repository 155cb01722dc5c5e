ALTER TABLE "contacts" ADD COLUMN "job_functions" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "job_level" text DEFAULT '' NOT NULL;