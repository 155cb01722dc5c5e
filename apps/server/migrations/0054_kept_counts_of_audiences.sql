ALTER TABLE "audiences" ADD COLUMN "people" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "audiences" ADD COLUMN "came_since" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "audiences" ADD COLUMN "left_since" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "audiences" ADD COLUMN "seen_at" timestamp with time zone;--> statement-breakpoint
UPDATE "audiences" SET "seen_version" = -1, "people" = (SELECT count(*) FROM "audience_members" m WHERE m."audience_id" = "audiences"."id");
