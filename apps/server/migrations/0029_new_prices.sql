ALTER TABLE "attempts" ADD COLUMN "told_price" bigint;--> statement-breakpoint
ALTER TABLE "fill_runs" ADD COLUMN "prices" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "fill_runs" ADD COLUMN "new_prices" jsonb DEFAULT '{}'::jsonb NOT NULL;