ALTER TABLE "fill_runs" ADD COLUMN "asking" text DEFAULT 'until-found' NOT NULL;--> statement-breakpoint
ALTER TABLE "fill_runs" ADD COLUMN "sample" integer;