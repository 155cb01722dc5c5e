ALTER TABLE "charges" ALTER COLUMN "list_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "charges" ALTER COLUMN "job_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "attempts" ADD COLUMN "receipt" text;--> statement-breakpoint
ALTER TABLE "connections" ADD COLUMN "document" jsonb;