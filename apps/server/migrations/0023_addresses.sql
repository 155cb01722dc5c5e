CREATE TABLE "address_checks" (
	"job_id" uuid NOT NULL,
	"address" text NOT NULL,
	"deliverability" text,
	"cost" bigint,
	"order_id" text,
	"ordered_at" timestamp with time zone,
	"answered_at" timestamp with time zone,
	CONSTRAINT "address_checks_job_id_address_pk" PRIMARY KEY("job_id","address")
);
--> statement-breakpoint
CREATE TABLE "addresses" (
	"address" text PRIMARY KEY NOT NULL,
	"deliverability" text NOT NULL,
	"checked_at" timestamp with time zone NOT NULL,
	"ages_as" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "check_settings" (
	"is_only" boolean PRIMARY KEY DEFAULT true NOT NULL,
	"fresh_days" jsonb NOT NULL,
	"text_price" bigint NOT NULL,
	"mail_price" bigint NOT NULL
);
--> statement-breakpoint
ALTER TABLE "contact_cube" ADD COLUMN "email_kind" text DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE "contact_cube" ADD COLUMN "email_state" text DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE "contact_cube" ADD COLUMN "sureness" text DEFAULT 'nothing' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "email_kind" text DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "email_state" text DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE "contacts" ADD COLUMN "sureness" text DEFAULT 'nothing' NOT NULL;--> statement-breakpoint
ALTER TABLE "numbers" ADD COLUMN "ages_as" text DEFAULT 'mobile' NOT NULL;--> statement-breakpoint
CREATE INDEX "address_checks_address" ON "address_checks" USING btree ("address");--> statement-breakpoint
UPDATE "numbers" SET "ages_as" = CASE
	WHEN "status" IN ('out-of-service', 'unreachable') THEN "status"
	WHEN "line_type" IN ('mobile', 'fixed-or-mobile') THEN 'mobile' ELSE 'other-line' END;--> statement-breakpoint
UPDATE "contacts" c SET "email_kind" = e."kind", "email_state" = 'not-checked'
FROM "contact_emails" e WHERE e."contact_id" = c."id" AND e."position" = 0;--> statement-breakpoint
UPDATE "contacts" c SET "sureness" = CASE
	WHEN s."rings" THEN 'mobile-in-service' WHEN s."mobile" THEN 'mobile-not-checked' WHEN s."line" THEN 'only-office'
	WHEN c."email_state" = 'not-checked' THEN 'address-not-checked' ELSE 'nothing' END
FROM (
	SELECT o."id",
		bool_or(l."live" AND l."kind" IN ('mobile', 'fixed-or-mobile') AND l."status" = 'in-service') AS "rings",
		bool_or(l."live" AND l."kind" IN ('mobile', 'fixed-or-mobile')) AS "mobile", bool_or(l."live") AS "line"
	FROM "contacts" o LEFT JOIN LATERAL (
		SELECT n."is_valid" AND coalesce(f."status", '') <> 'out-of-service' AS "live", f."status",
			coalesce(nullif(f."line_type", 'unknown'), n."line_type") AS "kind"
		FROM "contact_numbers" n LEFT JOIN "numbers" f ON f."e164" = n."e164" WHERE n."contact_id" = o."id") l ON true
	GROUP BY o."id") s
WHERE s."id" = c."id";--> statement-breakpoint
CREATE TEMP TABLE "cube_anew" ON COMMIT DROP AS
SELECT "list_id", "batch_id", "country", "verdict", "line_type", "line_status", "known_from", "lane", "lane_reason",
	"email_kind", "email_state", "sureness", "is_readable", "is_dead", "is_filled", "wants_mobile", "is_shared", "is_sent",
	"joined_into" IS NOT NULL AS "is_joined", "joined" > 0 AS "has_joined", count(*)::integer AS "contacts"
FROM "contacts" c WHERE EXISTS (SELECT 1 FROM "contact_cube" b WHERE b."batch_id" = c."batch_id")
GROUP BY 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20;--> statement-breakpoint
DELETE FROM "contact_cube";--> statement-breakpoint
INSERT INTO "contact_cube" ("list_id", "batch_id", "country", "verdict", "line_type", "line_status", "known_from", "lane",
	"lane_reason", "email_kind", "email_state", "sureness", "is_readable", "is_dead", "is_filled", "wants_mobile",
	"is_shared", "is_sent", "is_joined", "has_joined", "contacts")
SELECT * FROM "cube_anew";
