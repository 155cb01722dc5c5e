CREATE TABLE "lawful_regions" (
	"is_only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"countries" text[] NOT NULL
);
--> statement-breakpoint
ALTER TABLE "fills" DROP CONSTRAINT "fills_attempt_id_unique";--> statement-breakpoint
ALTER TABLE "fills" ALTER COLUMN "e164" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "attempts" ADD COLUMN "found" text[] DEFAULT '{}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "candidates" ADD COLUMN "address" text;--> statement-breakpoint
ALTER TABLE "candidates" ADD COLUMN "kept_as" text;--> statement-breakpoint
ALTER TABLE "fill_runs" ADD COLUMN "options" jsonb DEFAULT '{"wants":["mobile"],"branches":[],"conditions":{},"alsoDoubtful":false,"checksAddresses":true,"perContact":null,"perDay":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "fill_runs" ADD COLUMN "left_out" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "fill_searches" ADD COLUMN "wants" text[] DEFAULT '{mobile}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "fills" ADD COLUMN "address" text;--> statement-breakpoint
ALTER TABLE "fills" ADD COLUMN "found_as" text DEFAULT 'mobile' NOT NULL;--> statement-breakpoint
CREATE INDEX "fills_attempt" ON "fills" USING btree ("attempt_id");--> statement-breakpoint
UPDATE "attempts" SET "found" = '{mobile}' WHERE "state" = 'accepted';
